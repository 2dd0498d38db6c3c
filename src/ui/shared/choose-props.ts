/** What is chosen from, what is chosen, and what hears of another choice. */
export interface ChooseProps {
  id?: string;
  label?: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  disabled?: boolean;
}
