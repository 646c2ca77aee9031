import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused, type LinkTold, type Member, type Role } from '../api/client';
import { usePeople, usePeopleChanges } from '../api/people';
import { useTell } from '../app/Notices';
import { sentence } from '../words/refusal';
import { CALLED, ROLES } from './roles';

const day = (at: string) => new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'long' });

/** An owner's list: who works here, links that nobody has used yet, and letting somebody in. */
export function Members({ mine }: { mine: string }) {
  const people = usePeople(true).data;
  const changes = usePeopleChanges();
  const tell = useTell();
  const [made, setMade] = useState<LinkTold | null>(null);
  const [role, setRole] = useState<Role>('maker');
  const onError = (error: Error) =>
    tell({ text: error instanceof Refused && error.problems[0] ? sentence(error.problems[0]) : error.message });
  const onSuccess = (link: LinkTold) => setMade(link);
  return (
    <>
      <Box component="ul" aria-label="Who works here" sx={{ listStyle: 'none', p: 0, my: 2 }}>
        {people?.members.map((member) => (
          <One
            key={member.id}
            member={member}
            isMe={member.id === mine}
            onRole={(next) => changes.make.mutate({ id: member.id, role: next }, { onError })}
            onPassword={() => changes.passwordLink.mutate(member.id, { onSuccess, onError })}
            onLetGo={() => changes.letGo.mutate(member.id, { onError })}
          />
        ))}
      </Box>
      <Typography variant="h2">Let somebody in</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 1.5, alignItems: 'center' }}>
        <RoleChoice label="As" value={role} onChange={setRole} />
        <Button variant="contained" onClick={() => changes.invite.mutate(role, { onSuccess, onError })}>
          Make a link
        </Button>
      </Box>
      {made && <Made link={made} />}
      {(people?.links.length ?? 0) > 0 && (
        <Box component="section" aria-label="Links that nobody has used yet" sx={{ mt: 3 }}>
          <Typography variant="h2">Not used yet</Typography>
          {people?.links.map((link) => (
            <Box key={link.id} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 48 }}>
              <Typography sx={{ flex: 1 }}>
                {link.for_whom ? `New password for ${link.for_whom}` : `To come in: ${CALLED[link.role].toLowerCase()}`}
                , until {day(link.ends_at)}
              </Typography>
              <Button onClick={() => changes.takeBack.mutate(link.id, { onError })}>Take it back</Button>
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}

interface OneProps {
  member: Member;
  isMe: boolean;
  onRole: (role: Role) => void;
  onPassword: () => void;
  onLetGo: () => void;
}

function One({ member, isMe, onRole, onPassword, onLetGo }: OneProps) {
  const [sure, setSure] = useState(false);
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 1,
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ flex: '1 1 180px' }}>
        <Typography sx={{ fontWeight: 650 }}>
          {member.name}
          {isMe && ', you'}
        </Typography>
        <Typography variant="body2" color="text.secondary">
          since {day(member.since)}
        </Typography>
      </Box>
      <RoleChoice label={`What ${member.name} is`} value={member.role} onChange={onRole} bare />
      {!isMe && <Button onClick={onPassword}>New password</Button>}
      {!isMe && (
        <Button color={sure ? 'error' : 'primary'} onClick={() => (sure ? onLetGo() : setSure(true))}>
          {sure ? 'Really? What they made stays' : 'Works here no longer'}
        </Button>
      )}
    </Box>
  );
}

interface ChoiceProps {
  label: string;
  value: Role;
  onChange: (role: Role) => void;
  /** Without a label that is seen: it stands beside a name. */
  bare?: boolean;
}

function RoleChoice({ label, value, onChange, bare = false }: ChoiceProps) {
  return (
    <TextField
      select
      label={bare ? undefined : label}
      value={value}
      onChange={(event) => onChange(event.target.value as Role)}
      slotProps={{ select: { SelectDisplayProps: { 'aria-label': bare ? label : undefined } } }}
      sx={{ width: 150 }}
    >
      {ROLES.map((role) => (
        <MenuItem key={role} value={role}>
          {CALLED[role]}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** A link that was made just now: it is shown this once. */
function Made({ link }: { link: LinkTold }) {
  const tell = useTell();
  const address = `${window.location.origin}/join#${link.token}`;
  return (
    <Box sx={{ bgcolor: 'sheet', borderLeft: 6, borderColor: 'primary.main', p: 2, my: 1 }}>
      <Typography sx={{ overflowWrap: 'anywhere', fontWeight: 600 }} data-testid="link">
        {address}
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ my: 0.5 }}>
        It works once, until {day(link.ends_at)}, and is shown only now. Whoever has it comes in.
      </Typography>
      <Button
        variant="outlined"
        onClick={() => {
          navigator.clipboard.writeText(address).then(
            () => tell({ text: 'The link is on the clipboard.' }),
            () => tell({ text: 'It can’t be copied here: mark it and copy it.' }),
          );
        }}
      >
        Copy it
      </Button>
    </Box>
  );
}
