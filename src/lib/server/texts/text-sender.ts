/** Sending text messages, whoever carries them. Its client here speaks to the stand-in's interface. */

export interface TextMessage {
  /** The same id is the same message for ever, however often it is sent. */
  readonly id: string;
  /** As E.164 has it, such as +441632960123. */
  readonly to: string;
  readonly text: string;
}

export interface TextSender {
  /** @throws {Error} If nobody took it. */
  send(message: TextMessage): Promise<void>;
}

const PATIENCE = 8_000;

/**
 * By HTTP (standins/texts/README.md).
 * @param url Such as https://texts.example
 */
export const httpTexts = (url: string, apiKey: string): TextSender => ({
  send: async (message) => {
    const response = await fetch(new URL('/messages', url), {
      method: 'POST',
      headers: { authorization: `Bearer ${apiKey}`, 'content-type': 'application/json' },
      body: JSON.stringify(message),
      signal: AbortSignal.timeout(PATIENCE),
    });
    if (!response.ok) throw new Error(`the gateway answered ${String(response.status)}`);
  },
});
