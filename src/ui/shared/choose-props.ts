/** What is chosen from, what is chosen, and what hears of another choice. */
export interface ChooseProps {
  id?: string;
  label?: string;
  value: string;
  /** `why` says of an option why it cannot be chosen. */
  options: readonly { value: string; label: string; why?: string | null }[];
  onChange: (value: string) => void;
  disabled?: boolean;
}
