import Typography from '@mui/material/Typography';
import { useComing } from '../api/people';
import { Doorstep } from './Doorstep';
import { WhoForm } from './WhoForm';

/** Who is at the bench? What was being typed is kept until they say. */
export function SignInScreen() {
  const { signIn } = useComing();
  return (
    <Doorstep title="Who is at the bench?">
      <WhoForm onWho={signIn.mutate} error={signIn.error} busy={signIn.isPending} button="Come in" makes={false}>
        <Typography variant="body2" color="text.secondary">
          Lost your password? A workshop’s owner can make you a link to a new one. Nobody here yet, or no owner left:
          whoever looks after this machine makes a link with <code>./people owner</code>.
        </Typography>
      </WhoForm>
    </Doorstep>
  );
}
