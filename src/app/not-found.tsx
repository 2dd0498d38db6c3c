import { PageNotice } from "@/ui/shared/page-notice";

/** What stands at an address that is none. */
export default function NotFound() {
  return (
    <PageNotice title="There is nothing at this address">
      It may have been typed wrongly, or what stood here was taken away.
    </PageNotice>
  );
}
