import { redirect } from "next/navigation";

export default function Page() {
  redirect("/guide/first-hour");
}
