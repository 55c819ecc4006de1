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

/** The last of a winter that ships, from 1 October on. */
export const LAST_DAY = 181;
const DAY_MS = 86_400_000;

/** Tonight in the simulated weather that ships: the winter and its day; null: outside of the season. */
export function tonight(now = new Date()): { winter: number; day: number } | null {
  const winter = now.getMonth() < 9 ? now.getFullYear() - 1 : now.getFullYear();
  const day = Math.round((Date.UTC(now.getFullYear(), now.getMonth(), now.getDate()) - Date.UTC(winter, 9, 1)) / DAY_MS);
  return day <= LAST_DAY ? { winter, day } : null;
}

/** Whether a night is that of today, at one of the places. */
export function isTonight(weather: Schema["WeatherChoice"] | null | undefined, now = new Date()): boolean {
  const here = tonight(now);
  return here !== null && !!weather?.place && weather.winter === here.winter && weather.day === here.day;
}
