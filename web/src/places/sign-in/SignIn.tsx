import { Text, Title } from "@mantine/core";
import classes from "./SignIn.module.css";
import { SignInForm } from "./SignInForm";

export function SignIn() {
  return (
    <main className={classes.page}>
      <div className={classes.panel}>
        <Title order={1} size={34}>
          Even Probe
        </Title>
        <Text mt={6} mb="lg" size="lg">
          Takes your readings and says what they can still mean.
        </Text>
        <SignInForm />
        <Text mt="md" size="sm" className="quiet">
          Forgotten it, or new here? A keeper of your crew makes you a link.
        </Text>
        <Text mt="xl" size="sm" className="quiet">
          This work can kill. Even Probe helps a competent person work in order and keeps their record. It
          does not replace training, the maker's instructions, local codes, permits or a licensed
          electrician's judgement. When in doubt, treat as live.
        </Text>
        <a className={classes.notices} href="/notices.txt">
          Fonts and libraries by others: notices
        </a>
      </div>
    </main>
  );
}
