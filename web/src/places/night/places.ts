import type { Schema } from "../../api/client";

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

/** Which weather a night has, in a few words. */
export const weatherWords = ({ place, day, hours }: Schema["WeatherChoice"]) =>
  place
    ? `${places[place].split(":")[0]}, ${dayWords(day ?? 0)}`
    : `a file of ${hours?.length === 1 ? "one hour" : `${hours?.length ?? 0} hours`}`;
