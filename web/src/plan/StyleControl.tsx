import ListItemText from '@mui/material/ListItemText';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import type { Draft, StyleChoice } from '../api/client';
import { choicesOf, useChoices, useStyles } from '../api/queries';
import { useTell } from '../app/Notices';
import { useReader } from '../preferences/Preferences';
import { useDesk, useProblem } from './Desk';
import { valueAt, type Exchange } from './draft';
import { StyleForm } from './StyleForm';

/** What of a ring decides which styles go together, and what its wires are unless they are asked otherwise. */
export const decisive = (draft: Draft) => ({
  band: valueAt(draft, 'band') ?? {},
  head: valueAt(draft, 'head') ?? {},
  ...(draft.taken ? { taken: draft.taken } : {}),
});

/** What can be chosen for the ring on the desk. The plan goes out first. */
export const useChosen = () => useChoices(useDeferredValue(decisive(useDesk().draft)), useReader());

const isSet = (settings: object) => Object.keys(settings).length > 0;
const inSentence = (title: string) => title.charAt(0).toLowerCase() + title.slice(1);

/** A style of band or head, and its parameters. */
export function StyleControl({ kind }: { kind: 'band' | 'head' }) {
  const { draft, exchange, undo } = useDesk();
  const queries = useQueryClient();
  const reader = useReader();
  const tell = useTell();
  const styles = useStyles().data ?? [];
  const known = useChosen().data;
  const problem = useProblem(`${kind}.style`);
  const bandStyle = valueAt(draft, 'band.style');
  const headStyle = valueAt(draft, 'head.style');
  const chosen = kind === 'band' ? bandStyle : headStyle;
  const titleOf = (of: 'band' | 'head', style: unknown) =>
    styles.find((s) => s.kind === of && s.style === style)?.title ?? '';
  const choices = known && (kind === 'band' ? known.bands : known.heads);
  // A band can always be chosen, without the head if need be; a head that doesn't go here says why.
  const offered = styles
    .filter((s) => s.kind === kind)
    .map((s) => ({ ...s, why: choices?.find((c) => c.style === s.style)?.reason ?? '' }))
    .sort((a, b) => Number(kind === 'head' && a.why !== '') - Number(kind === 'head' && b.why !== ''));
  const style = styles.find((s) => s.kind === kind && s.style === chosen);

  const choose = async (next: string) => {
    const asked = choicesOf(decisive(draft), reader);
    const now = await queries.query({ ...asked, staleTime: 'static' }).catch(() => undefined);
    const choice = (kind === 'band' ? now?.bands : now?.heads)?.find((c) => c.style === next);
    const other = kind === 'band' ? 'head' : 'band';
    const otherStyle = text(kind === 'band' ? headStyle : bandStyle);
    const { settings = {}, other_settings = {}, head_instead } = choice ?? {};
    const parts: Exchange[] = [{ part: kind, kind: next, from: text(chosen), usual: { style: next }, settings }];
    if (head_instead)
      parts.push({ part: 'head', kind: head_instead, from: otherStyle, usual: { style: head_instead } });
    else if (isSet(other_settings))
      parts.push({ part: other, kind: otherStyle, from: otherStyle, usual: {}, settings: other_settings });
    exchange(...parts);
    if (choice && head_instead) tell({ text: dropped(choice), undo });
    else if (isSet(settings) || isSet(other_settings))
      tell({ text: `Band and head are set so that ${inSentence(choice?.title ?? '')} can be made.`, undo });
  };
  const dropped = ({ reason, head_instead }: StyleChoice) => {
    const instead = titleOf('head', head_instead);
    return `${titleOf('head', headStyle)} doesn’t go on it: ${reason}. Now: ${inSentence(instead)}.`;
  };
  const beside = (why: string) =>
    !why ? undefined : kind === 'head' ? why : `without the ${inSentence(titleOf('head', headStyle))}`;

  return (
    <Stack spacing={2.5}>
      <TextField
        select
        data-field={`${kind}.style`}
        label={kind === 'band' ? 'Band' : 'Head'}
        value={offered.some((s) => s.style === chosen) ? text(chosen) : ''}
        onChange={(event) => void choose(event.target.value)}
        error={!!problem}
        helperText={problem}
        slotProps={{ select: { renderValue: (value) => titleOf(kind, value) } }}
      >
        {offered.map((s) => (
          <MenuItem
            key={s.style}
            value={s.style}
            aria-label={s.title}
            aria-description={beside(s.why)}
            disabled={kind === 'head' && s.why !== '' && s.style !== chosen}
          >
            <ListItemText
              sx={{ my: 0 }}
              primary={s.title}
              secondary={s.style === chosen ? undefined : beside(s.why)}
              slotProps={{ secondary: { sx: { whiteSpace: 'normal' } } }}
            />
          </MenuItem>
        ))}
      </TextField>
      {style && <StyleForm key={style.style} path={kind} schema={style.parameters} />}
    </Stack>
  );
}

const text = (style: unknown) => (typeof style === 'string' ? style : '');
