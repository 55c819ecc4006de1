/** The invented places whose winters ship, as they are told apart. */
export const places = {
  kettleFell: "Kettle Fell: high, dry, still cold",
  brennickQuay: "Brennick Quay: wet, windy, around zero",
  osmerPlain: "Osmer Plain: long deep frost",
} as const;
export type Place = keyof typeof places;

/** A day of the winter, from 1 October on, as one says it. */
export const dayWords = (day: number) =>
  new Date(Date.UTC(2001, 9, 1 + day)).toLocaleDateString("en-GB", { day: "numeric", month: "short", timeZone: "UTC" });
