import { defineStore } from 'pinia';
import { ref } from 'vue';
import { JackplaneError, sentenceOf } from '../../core/base/errors';

export interface Notice {
  id: number;
  kind: 'problem' | 'news';
  text: string;
  /** something that can be done about it at once */
  action?: { label: string; run(): void };
}

/** What has to be said once: problems stay until closed, news leaves by itself. */
export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([]);
  let last = 0;

  function say(text: string, kind: Notice['kind'] = 'news', action?: Notice['action']): void {
    if (notices.value.some((notice) => notice.text === text)) return;
    const id = ++last;
    notices.value.push({ id, kind, text, ...(action ? { action } : {}) });
    if (kind === 'news') setTimeout(() => close(id), action ? 15_000 : 6000);
  }
  /** Says what went wrong. An error without words for a person goes to the browser's own log as well. */
  function problem(error: unknown): void {
    if (!(error instanceof JackplaneError)) reportError(error);
    say(sentenceOf(error), 'problem');
  }
  function close(id: number): void {
    notices.value = notices.value.filter((notice) => notice.id !== id);
  }
  return { notices, say, problem, close };
});
