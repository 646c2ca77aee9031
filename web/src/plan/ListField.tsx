import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Labelled } from '../ui/Labelled';
import { DeskProvider, useDesk, useProblem } from './Desk';
import { Choice } from './fields';
import { valueAt, withValue } from './draft';
import { within, type RingPath } from './ringPaths';
import { StyleForm, type FieldSchema } from './StyleForm';

interface Props {
  path: RingPath;
  label: string;
  help?: string | undefined;
  items: FieldSchema;
  /** The list that is meant where nothing is given. */
  usual: unknown;
  /** A word that may stand instead of a list. */
  other?: string | undefined;
  definitions: Record<string, FieldSchema>;
}

const MOST = 9;

/** Several of one kind, in their order: each with its own fields, one added or taken away at a tap. */
export function ListField({ path, label, help, items, usual, other, definitions }: Props) {
  const desk = useDesk();
  const problem = useProblem(path);
  const given = valueAt(desk.draft, path) ?? usual;
  const list: unknown[] = Array.isArray(given) ? given : [];
  const inner = definitions[items.$ref?.split('/').at(-1) ?? ''];
  const filled = withValue(desk.draft, path, list);
  const put = (next: unknown[]) => desk.change(path, next);
  const fresh = items.enum ? (items.enum[0] ?? '') : {};
  return (
    <Labelled field={path} label={label} help={help} problem={problem}>
      {other !== undefined && (
        <Button
          variant={given === other ? 'contained' : 'outlined'}
          aria-pressed={given === other}
          onClick={() => desk.change(path, given === other ? (Array.isArray(usual) ? usual : [fresh]) : other)}
          sx={{ mb: 1.5 }}
        >
          {other.charAt(0).toUpperCase() + other.slice(1)}
        </Button>
      )}
      <DeskProvider
        value={{
          ...desk,
          draft: filled,
          // The whole list is written, so that one which was only meant stands there too.
          change: (at, value) => desk.change(path, valueAt(withValue(filled, at, value), path)),
        }}
      >
        {list.map((_, k) => (
          <Box key={k} sx={{ mb: 2, pl: 2, borderLeft: 2, borderColor: 'divider' }}>
            {inner ? (
              <StyleForm path={within(path, k)} schema={inner} definitions={definitions} />
            ) : (
              <Choice path={within(path, k)} label={`${k + 1}`} choices={items.enum ?? []} />
            )}
            <Button variant="text" onClick={() => put(list.filter((__, j) => j !== k))} sx={{ px: 0 }}>
              Take out number {k + 1}
            </Button>
          </Box>
        ))}
      </DeskProvider>
      {given !== other && list.length < MOST && (
        <Button variant="outlined" onClick={() => put([...list, list.at(-1) ?? fresh])}>
          {list.length ? 'One more' : 'Add one'}
        </Button>
      )}
    </Labelled>
  );
}
