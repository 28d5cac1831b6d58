import type { News } from '../client/live';

interface FakeSource {
  url: string;
  readyState: number;
  onopen: () => void;
  onmessage: (event: { data: string }) => void;
  onerror: () => void;
}

/** Streams that were opened, the oldest first. */
export const listStreams = (): FakeSource[] => (EventSource as unknown as { all: FakeSource[] }).all;

/** What the server tells those who hear. */
export function say(news: News): void {
  const stream = listStreams().at(-1)!;
  if (news.topic === 'away') stream.onerror();
  else if (news.topic === 'again') stream.onopen();
  else stream.onmessage({ data: JSON.stringify(news) });
}
