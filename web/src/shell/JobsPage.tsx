/** The list of jobs: open one, start one, load one from a file. */

import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ApiError, http, unwrap } from "../api/client";
import type { Job } from "../api/types";
import { CLIENT } from "../job/useJob";
import { VEHICLES } from "../job/vehicles";
import { FileButton } from "../ui/FileButton";
import { JobRow } from "./JobRow";
import { Wordmark } from "./Wordmark";

export function JobsPage() {
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => unwrap(http.GET("/api/jobs")) });
  const due = useQuery({ queryKey: ["due"], queryFn: () => unwrap(http.GET("/api/due")) });
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <div className="min-h-full bg-sheet">
      <header className="bg-ink text-paper px-6 h-12 flex items-center">
        <Wordmark />
      </header>
      <main className="max-w-[1200px] mx-auto px-6 py-6 grid gap-10 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_280px]">
        <section>
          <h1 className="text-[28px] border-b-2 border-ink">Jobs</h1>
          {jobs.data?.map((job) => (
            <JobRow key={job.id} job={job} due={due.data?.find((d) => d.id === job.id)?.due[0]} />
          ))}
          {jobs.data?.length === 0 && <p className="py-4">No job yet. Start one: name it, then measure the roof.</p>}
          {jobs.error && <p className="py-4 text-signal font-semibold">The server does not answer. Is it running?</p>}
        </section>
        <aside>
          <NewJob onProblem={setProblem} />
          <Import onProblem={setProblem} />
          {problem && (
            <p role="alert" className="mt-3 border-l-4 border-signal pl-3 font-semibold text-signal">
              {problem}
            </p>
          )}
        </aside>
      </main>
    </div>
  );
}

function NewJob({ onProblem }: { onProblem: (words: string | null) => void }) {
  const go = useNavigate();
  const start = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    if (!String(form.get("name")).trim()) {
      onProblem("The job has no name yet. Type what you call the vehicle.");
      event.currentTarget.querySelector<HTMLInputElement>("[name=name]")?.focus();
      return;
    }
    try {
      const made = await unwrap(
        http.POST("/api/jobs", {
          body: {
            name: String(form.get("name")),
            kind: form.get("kind") as Job["vehicle"]["kind"],
            units: form.get("units") as Job["units"],
            client: CLIENT,
          },
        }),
      );
      await go(`/jobs/${made.id}/survey`);
    } catch (failure) {
      onProblem(failure instanceof ApiError ? failure.message : "The server does not answer.");
    }
  };
  return (
    <form noValidate onSubmit={(event) => void start(event)} className="grid gap-2.5">
      <h2 className="text-[20px] border-b-2 border-ink">New job</h2>
      <label className="label">
        Name
        <input name="name" maxLength={80} className="box" autoComplete="off" placeholder="what you call the vehicle" />
      </label>
      <label className="label">
        Vehicle
        <select name="kind" className="box">
          {VEHICLES.map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <label className="label">
        Units
        <select name="units" className="box">
          <option value="metric">millimetres, km/h, kg</option>
          <option value="imperial">inches, mph, lb</option>
        </select>
      </label>
      <button type="submit" className="act justify-center">
        Start the job
      </button>
    </form>
  );
}

function Import({ onProblem }: { onProblem: (words: string | null) => void }) {
  const go = useNavigate();
  const load = async (text: string) => {
    try {
      const made = await unwrap(
        http.POST("/api/jobs/import", {
          params: { query: { client: CLIENT } },
          body: text,
          bodySerializer: (body: unknown) => String(body),
          headers: { "content-type": "application/octet-stream" },
        }),
      );
      await go(`/jobs/${made.id}/survey`);
    } catch (failure) {
      onProblem(failure instanceof ApiError ? failure.message : "The server does not answer.");
    }
  };
  return (
    <div className="mt-6 grid gap-1.5">
      <h2 className="text-[20px] border-b-2 border-ink">From a file</h2>
      <p className="label">Job file (JSON)</p>
      <FileButton
        label="Load a job file"
        accept=".json,application/json"
        most={5_000_000}
        tooLarge="The file is over 5 MB. Choose a job file written by Fahrtwind."
        take={load}
        refuse={onProblem}
      />
    </div>
  );
}
