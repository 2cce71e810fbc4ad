/** The only place that talks HTTP. Every failure becomes an ApiError in the server's one shape. */
import createClient from "openapi-fetch";
import type { paths } from "./schema";
import type { ErrorBody } from "./types";

export const http = createClient<paths>({ baseUrl: "" });

export class ApiError extends Error {
  readonly body: ErrorBody;
  readonly status: number;
  constructor(body: ErrorBody, status: number) {
    super(`${body.message} ${body.remedy}`);
    this.body = body;
    this.status = status;
  }
}

export class Offline extends Error {
  constructor() {
    super("The server does not answer.");
  }
}

const SILENT: ErrorBody = {
  code: "unknown",
  field: "",
  message: "The server gave no readable answer.",
  remedy: "Try again.",
};

type Reply<T> = { data?: T | undefined; error?: unknown; response: Response };

/** The data of a reply, or an ApiError; a network failure becomes Offline. */
export async function unwrap<T>(reply: Promise<Reply<T>>): Promise<T> {
  let settled: Reply<T>;
  try {
    settled = await reply;
  } catch (problem) {
    if (problem instanceof DOMException && problem.name === "AbortError") throw problem;
    throw new Offline();
  }
  if (settled.response.ok) return settled.data as T;
  throw new ApiError(isErrorBody(settled.error) ? settled.error : SILENT, settled.response.status);
}

function isErrorBody(value: unknown): value is ErrorBody {
  return typeof value === "object" && value !== null && "message" in value && "remedy" in value;
}

/** Keep a file with a job; told by the hash of its content. */
export async function attachFile(job: string, name: string, content: Blob): Promise<string> {
  const query = { name: name.slice(0, 80) || "file" };
  const body = content as unknown as string; // the generated types know no bytes
  const told = await unwrap(
    http.POST("/api/jobs/{job_id}/attachments", {
      params: { path: { job_id: job }, query },
      body,
      bodySerializer: () => content,
      headers: { "content-type": "application/octet-stream" },
    }),
  );
  return told.digest;
}
