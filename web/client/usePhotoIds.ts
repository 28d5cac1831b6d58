import { useEffect, useState } from 'react';
import { hearNews } from './live';
import { request } from './request';

const NONE: ReadonlySet<string> = new Set();

/** Ids of the pictures of a job that the server has. Asked for when the card opens and when the server tells of new ones; not asked for at all where isAsked is false. */
export function usePhotoIds(jobId: string, isAsked: boolean): ReadonlySet<string> {
  const [ids, setIds] = useState(NONE);
  useEffect(() => {
    if (!isAsked) return undefined;
    let isOver = false;
    const ask = () =>
      request<{ id: string }[] | null>(`/api/jobs/${jobId}/photos`).then(
        (photos) => {
          if (!isOver && Array.isArray(photos)) setIds(new Set(photos.map((photo) => photo.id)));
        },
        // without a network the picture is not shown
        () => undefined,
      );
    void ask();
    const end = hearNews((news) => {
      if (news.topic === 'photos' && news.id === jobId) void ask();
    });
    return () => {
      isOver = true;
      end();
    };
  }, [jobId, isAsked]);
  return ids;
}
