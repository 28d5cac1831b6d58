import type { Finding, Job } from 'wattograph-core';
import { readAuthor } from '../client/author';
import { useJob, useJobStore } from '../client/jobContext';
import { askReason } from './askReason';

/** Why a finding may stand, and who said so; undefined while nobody did. */
export function useAccepted({ key }: Finding): Job['accepted'][string] | undefined {
  return useJob(({ document }) => (Object.hasOwn(document.accepted, key) ? document.accepted[key] : undefined));
}

/** Lets a finding stand with a reason, or takes that back. A note needs neither. */
export function AcceptButton({ finding, className }: { finding: Finding; className?: string }) {
  const store = useJobStore();
  const accepted = useAccepted(finding);
  if (finding.grade === 'note') return null;
  const accept = (reason: string) =>
    store.edit(`accept ${finding.code}`, (draft) => {
      draft.accepted[finding.key] = { reason, by: readAuthor() };
    });
  const takeBack = () =>
    store.edit('take an acceptance back', (draft) => {
      delete draft.accepted[finding.key];
    });
  return accepted ? (
    <button className={className} onClick={takeBack}>
      take back
    </button>
  ) : (
    <button className={className} onClick={() => askReason(`Why may this stand? ${finding.sentence}`, accept)}>
      let it stand …
    </button>
  );
}

/** The reason beside a finding that stands. */
export function Stands({ finding }: { finding: Finding }) {
  const accepted = useAccepted(finding);
  return (
    accepted && (
      <span className="faint">
        {' '}
        Stands: {accepted.reason} ({accepted.by})
      </span>
    )
  );
}
