import { Pause, Play } from "lucide-react";
import { Button } from "./controls";
import type { usePlay } from "./usePlay";

/** Plays what moves by itself, and stops it. */
export function PlayButton({ play, of }: { play: ReturnType<typeof usePlay>; of: string }) {
  const Icon = play.playing ? Pause : Play;
  const verb = play.playing ? "Stop" : "Play";
  return (
    <Button quiet aria-label={`${verb} ${of}`} title={`${verb} ${of}`} onClick={play.toggle}>
      <Icon size={18} /> {verb}
    </Button>
  );
}
