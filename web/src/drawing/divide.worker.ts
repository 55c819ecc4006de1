import { divideHeap, type Heap } from "./cornerScene";

// Dividing a large rig takes longer than a hand may wait: it is done beside the page.
self.onmessage = ({ data }: MessageEvent<Heap>) => self.postMessage(divideHeap(data));
