import { Field, Select } from './elements';

interface Props {
  label: string;
  /** What there is to choose from, by number. */
  options: readonly { id: number; name: string }[];
  value: number | null;
  onChange: (id: number | null) => void;
  /** Words for choosing none; without them one must be chosen. */
  none?: string;
  hint?: string;
}

/** One of the things on the bench: a machine, a bag, a person. */
export function Choice({ label, options, value, onChange, none, hint }: Props) {
  return (
    <Field label={label} hint={hint}>
      {(ids) => (
        <Select {...ids} value={value ?? ''} onChange={(e) => onChange(Number(e.target.value) || null)}>
          {none !== undefined && <option value="">{none}</option>}
          {options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </Select>
      )}
    </Field>
  );
}
