// The operations of the control port. Its token is kept for this tab, and out of the address.
const KEY = "cachette-token";
let asking = null;

/** Asks for the token, once, however many requests need it. */
function ask(wrong) {
  if (asking == null) {
    const dialog = document.getElementById("token");
    const field = document.getElementById("token-text");
    document.getElementById("token-wrong").textContent = wrong ? "This token is not accepted." : "";
    field.value = "";
    dialog.showModal();
    asking = new Promise(done => dialog.addEventListener("close", () => {
      sessionStorage.setItem(KEY, field.value);
      asking = null;
      done();
    }, { once: true }));
  }
  return asking;
}

/** Calls an operation; asks for the token if it is missing. */
export async function request(path, options = {}) {
  for (;;) {
    const token = sessionStorage.getItem(KEY);
    const headers = { ...options.headers };
    if (token) {
      headers.authorization = `Bearer ${token}`;
    }
    const response = await fetch(path, { ...options, headers });
    if (response.status !== 401) {
      return response;
    }
    if (asking == null && sessionStorage.getItem(KEY) === token) {
      await ask(token != null);
    } else if (asking != null) {
      await asking;
    }
  }
}

/** A problem (RFC 9457) that the control port has answered with. */
export class Problem extends Error {
  constructor(status, problem) {
    super(problem.detail ?? problem.title ?? `status ${status}`);
    this.status = status;
    this.problems = problem.problems ?? [];
  }
}

async function checked(response) {
  if (!response.ok) {
    throw new Problem(response.status, await response.json().catch(() => ({})));
  }
  return response;
}

export const json = async (path, options) => (await checked(await request(path, options))).json();
export const text = async (path, options) => (await checked(await request(path, options))).text();
export const done = async (path, options) => { await checked(await request(path, options)); };

/** Reads Server-Sent Events until the signal aborts or the stream ends. */
export async function events(path, signal, each) {
  const response = await checked(await request(path, { signal }));
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done: ended, value } = await reader.read();
    if (ended) {
      return;
    }
    rest += value;
    for (let end = rest.indexOf("\n\n"); end >= 0; end = rest.indexOf("\n\n")) {
      const lines = rest.slice(0, end).split("\n");
      rest = rest.slice(end + 2);
      const part = name => lines.filter(line => line.startsWith(name))
        .map(line => line.slice(name.length).replace(/^ /, "")).join("\n");
      each(part("event:"), part("data:"));
    }
  }
}
