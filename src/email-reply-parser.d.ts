declare module 'email-reply-parser' {
	/** Tells what somebody wrote in an answer from what they answer, and from what stands below every letter of theirs. */
	export default class EmailReplyParser {
		read(text: string): { getVisibleText(): string; getQuotedText(): string };
	}
}
