import { TypedFigure } from "../../ui/QuantityField";
import type { NightSlider } from "./nightSliders";

/** The figure of a slider of the night, to be typed where it is one. */
export function NightFigure({ slider }: { slider: NightSlider }) {
  return slider.typed ? <TypedFigure label={`${slider.label}, typed`} {...slider.typed} /> : slider.text;
}
