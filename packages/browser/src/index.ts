export { HistoryWriter, type HistoryWindow } from './history-writer.ts';
export { LiveAddress, type Listener } from './live-address.ts';
