/* eslint-disable no-undef */
// What jsdom does not have: streams of server-sent events, and channels between tabs. A test says what the server tells by say().
if (typeof window !== 'undefined') {
  globalThis.EventSource = class {
    static CLOSED = 2;
    static all = [];
    readyState = 0;
    constructor(url) {
      this.url = url;
      EventSource.all.push(this);
    }
  };
  globalThis.BroadcastChannel = class {
    static all = [];
    constructor(name) {
      this.name = name;
      BroadcastChannel.all.push(this);
    }
    postMessage(data) {
      for (const other of BroadcastChannel.all) if (other !== this && other.name === this.name) other.onmessage?.({ data });
    }
  };
}
