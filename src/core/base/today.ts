const formats = new Map<string, Intl.DateTimeFormat>();

/** The day that it is in a time zone (empty: that of the machine), as ISO 8601 text: Swedish writes dates so. */
export function todayIn(timeZone = ""): string {
  let format = formats.get(timeZone);
  if (!format) {
    format = new Intl.DateTimeFormat("sv-SE", timeZone ? { timeZone } : {});
    formats.set(timeZone, format);
  }
  return format.format(Date.now());
}
