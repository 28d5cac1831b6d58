import { toUrl } from './base';
import type { Heard } from '../server/listener';

/** What a page hears: what the server tells, and that the stream itself came (anything may be new) or went. */
export type News = Exclude<Heard, { topic: 'work' } | { topic: 'task' }> | { topic: 'away' };

const NAME = 'wattograph-live';
const RETRY_MS = 3000;

/**
 * What is new, heard by all tabs of this browser over one stream: a browser opens six connections to a server and no more, and a stream a
 * tab would soon hold them all. One tab has the stream and hands on what it hears; when it closes, another takes over.
 */
class Live {
  private readonly hearers = new Set<(news: News) => void>();
  private channel: BroadcastChannel | null = null;

  hear(hearer: (news: News) => void): () => void {
    this.hearers.add(hearer);
    if (this.channel === null) this.begin();
    return () => this.hearers.delete(hearer);
  }

  private begin(): void {
    this.channel = new BroadcastChannel(NAME);
    this.channel.onmessage = ({ data }: MessageEvent<News>) => this.tell(data);
    // a tab that slept may have missed what the others were told
    document.addEventListener('visibilitychange', () => {
      if (!document.hidden) this.tell({ topic: 'again' });
    });
    // on a page that is not a secure context there are no locks: then each tab has a stream of its own
    if (!('locks' in navigator)) this.open();
    else
      void navigator.locks.request(NAME, () => {
        this.open();
        // held until this tab is gone
        return new Promise(() => {});
      });
  }

  private open(): void {
    const source = new EventSource(toUrl('/api/live'));
    const tellAll = (news: News) => {
      this.tell(news);
      this.channel?.postMessage(news);
    };
    source.onopen = () => tellAll({ topic: 'again' });
    source.onmessage = ({ data }: MessageEvent<string>) => tellAll(JSON.parse(data) as News);
    source.onerror = () => {
      tellAll({ topic: 'away' });
      // an answer that is no stream ends it for good; what was only cut off the browser opens again itself
      if (source.readyState === EventSource.CLOSED) setTimeout(() => this.open(), RETRY_MS);
    };
  }

  private tell(news: News): void {
    for (const hearer of this.hearers) hearer(news);
  }
}

let live: Live | null = null;

/** Hear what is new on the server. Ends with the function given back. */
export function hearNews(hearer: (news: News) => void): () => void {
  live ??= new Live();
  return live.hear(hearer);
}
