import { ContactSheet } from "@/ui/contact-sheet/contact-sheet";

export default function Page() {
  return <ContactSheet />;
}
