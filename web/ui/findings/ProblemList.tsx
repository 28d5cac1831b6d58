import type { Problem } from 'wattograph-core';

/** What is wrong with something that was handed in, place by place. */
export function ProblemList({ title, problems, onClose }: { title: string; problems: readonly Problem[]; onClose?: () => void }) {
  return (
    <div role="alert" style={{ border: '1.5px solid var(--action)', padding: '10px 14px', margin: '8px 0' }}>
      <b style={{ color: 'var(--action)' }}>{title}</b>
      {onClose && (
        <button
          type="button"
          onClick={onClose}
          style={{ float: 'right', border: 0, background: 'none', cursor: 'pointer', textDecoration: 'underline' }}
        >
          put away
        </button>
      )}
      <ul style={{ margin: '6px 0 0', paddingLeft: 18 }}>
        {problems.map(({ path, message }, index) => (
          <li key={index}>
            {path && <span className="mono">{path}: </span>}
            {message}
          </li>
        ))}
      </ul>
    </div>
  );
}
