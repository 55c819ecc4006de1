import { useState } from "react";
import { useDropzone } from "react-dropzone";
import { api, data, Problem, type Schema } from "../../api/client";
import { Button, Slider } from "../../ui/controls";

const LONGEST = 241;

/** Hours of one's own: a weather file, or a table with headings. It is read here and goes with the question; it is kept nowhere. */
export function WeatherFile({ startHour, onHours }: { startHour: number; onHours(hours: Schema["WeatherHour"][]): void }) {
  const [read, setRead] = useState<Schema["WeatherRead"] | null>(null);
  const [from, setFrom] = useState(0);
  const [error, setError] = useState<string | null>(null);
  const take = (weather: Schema["WeatherRead"], hour: number) => {
    setFrom(hour);
    onHours(weather.hours.slice(hour, hour + LONGEST));
  };
  const open = async (file: File | undefined) => {
    if (!file) return;
    setError(null);
    try {
      const weather = await data(await api.POST("/api/weather", { body: { text: await file.text() } }));
      setRead(weather);
      take(weather, weather.coldestFrom);
    } catch (caught) {
      const reasons = caught instanceof Problem ? Object.entries(caught.fields).map(([where, why]) => `${where}: ${why.join("; ")}`) : [];
      setError(reasons.length > 0 ? reasons.slice(0, 6).join("\n") : caught instanceof Problem ? caught.message : String(caught));
    }
  };
  const drop = useDropzone({ noClick: true, noKeyboard: true, multiple: false, onDrop: ([file]) => void open(file) });
  const day = (hour: number) => `day ${1 + Math.floor(hour / 24)}, hour ${hour % 24}`;
  return (
    <div className="flex flex-col gap-2">
      <div {...drop.getRootProps({ className: drop.isDragActive ? "bg-sunk" : "" })}>
        <p className="text-muted">Hourly weather: an EPW file, or a table with temperature, wind, cloud. Drop it here, or</p>
        <Button onClick={drop.open}>open a file</Button>
        <input {...drop.getInputProps({ accept: ".epw,.csv,.tsv,.txt,text/csv", "aria-label": "Weather file" })} />
      </div>
      {error && (
        <p role="alert" className="whitespace-pre-line font-medium">
          {error}
        </p>
      )}
      {read && (
        <>
          <p>
            {read.name && `${read.name}: `}
            {read.hours.length} hours
            {read.missing > 0 && `, ${read.missing} missing values taken from the hour before`}.
          </p>
          {read.hours.length > 24 && (
            <div>
              <p className="flex justify-between gap-2">
                <span className="text-muted">The night starts at</span>
                <strong className="font-semibold">{from === read.coldestFrom ? `${day(from)}: its coldest` : day(from)}</strong>
              </p>
              <Slider
                label="The night starts at"
                value={from}
                min={0}
                max={read.hours.length - 12}
                step={1}
                text={day(from)}
                onChange={(hour) => take(read, hour)}
              />
            </div>
          )}
        </>
      )}
      <p className="text-muted">
        Its first hour is taken as {startHour}:00. The winters of the invented places as tables:{" "}
        {(["kettleFell", "brennickQuay", "osmerPlain"] as const).map((place, i) => (
          <a key={place} className="underline" href={`/api/weather/${place}/1.csv`} download={`${place}.csv`}>
            {i > 0 && " "}
            {["Kettle Fell", "Brennick Quay", "Osmer Plain"][i]}
          </a>
        ))}
      </p>
    </div>
  );
}
