import type { Finding, Job } from 'wattograph-core';
import { takeWaiverBack, waiveFinding } from 'wattograph-core';
import { readAuthor } from '../../client/person';
import { useJob, useJobStore } from '../../client/jobContext';
import { askReason } from '../fields/askReason';

/** Why a finding may stand, and who said so; undefined while nobody did. */
export function useWaiver({ key }: Finding): Job['accepted'][string] | undefined {
  return useJob(({ document }) => (Object.hasOwn(document.accepted, key) ? document.accepted[key] : undefined));
}

/** Lets a finding stand with a reason, or takes that back. A note needs neither. */
export function WaiveButton({ finding, className }: { finding: Finding; className?: string }) {
  const store = useJobStore();
  const accepted = useWaiver(finding);
  if (finding.grade === 'note') return null;
  const accept = (reason: string) => store.edit(waiveFinding(finding, reason, readAuthor()));
  const takeBack = () => store.edit(takeWaiverBack(finding.key));
  return accepted ? (
    <button type="button" className={className} onClick={takeBack}>
      take back
    </button>
  ) : (
    <button type="button" className={className} onClick={() => askReason(`Why may this stand? ${finding.sentence}`, accept)}>
      accept as it is …
    </button>
  );
}

/** The reason beside a finding that stands. */
export function Stands({ finding }: { finding: Finding }) {
  const accepted = useWaiver(finding);
  return (
    accepted && (
      <span className="faint">
        {' '}
        Stands: {accepted.reason} ({accepted.by})
      </span>
    )
  );
}
