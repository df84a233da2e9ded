/** A worker of a browser that analyses the base it is sent, as the threads of the server do. */
import { analyse } from '$core/analysis';
import type { AnalysisSettings } from '$core/analysis';
import { decodeBase, encodeSnapshot } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';

const worker = globalThis as unknown as {
  onmessage: (event: { data: { parts: SnapshotParts; settings: AnalysisSettings } }) => void;
  postMessage: (parts: SnapshotParts) => void;
};
worker.onmessage = ({ data: { parts, settings } }) =>
  worker.postMessage(encodeSnapshot(analyse(decodeBase(parts), settings)));
