/** The day that it is in a time zone, as ISO 8601 text: Swedish writes dates so. */
export const todayIn = (timeZone = ""): string =>
  new Date().toLocaleDateString("sv-SE", timeZone ? { timeZone } : {});
