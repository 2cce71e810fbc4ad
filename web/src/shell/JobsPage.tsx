/** The list of jobs: open one, start one, load one from a file. */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiError, http, unwrap } from "../api/client";
import type { Due, Job, JobListed } from "../api/types";
import { CLIENT } from "../job/useJob";
import { VEHICLES } from "../job/vehicles";
import { dayWords } from "../stations/days/road";
import { FileButton } from "../ui/FileButton";
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
      <main className="max-w-[1040px] mx-auto px-6 py-6 grid gap-10 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_320px]">
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

function JobRow({ job, due }: { job: JobListed; due?: Due | undefined }) {
  const client = useQueryClient();
  const [sure, setSure] = useState(false);
  const remove = async () => {
    await unwrap(http.DELETE("/api/jobs/{job_id}", { params: { path: { job_id: job.id } } }));
    await client.invalidateQueries({ queryKey: ["jobs"] });
  };
  const words = VEHICLES.find(([kind]) => kind === job.vehicle)?.[1] ?? job.vehicle;
  return (
    <div className="flex items-center gap-4 border-b border-hair">
      <Link to={`/jobs/${job.id}/survey`} className="flex-1 py-2.5 flex items-baseline gap-3 hover:bg-tape/40">
        <span className="font-sign font-semibold text-[20px]">{job.name}</span>
        <span className="text-soft">
          {words}, {job.panels} {job.panels === 1 ? "panel" : "panels"}
        </span>
        {due && (
          <span className={`text-[13px] ${due.late ? "text-signal font-semibold" : ""}`}>
            {due.late ? "late" : "due"} {dayWords(due.by)}: {due.what}
          </span>
        )}
        <span className="ml-auto text-soft whitespace-nowrap">{new Date(job.changed_at).toLocaleString()}</span>
      </Link>
      {sure ? (
        <>
          <button type="button" className="act" onClick={() => void remove()}>
            Remove {job.name}
          </button>
          <button type="button" className="act plain" onClick={() => setSure(false)}>
            Keep
          </button>
        </>
      ) : (
        <button type="button" className="act plain" aria-label={`Remove ${job.name} …`} onClick={() => setSure(true)}>
          Remove …
        </button>
      )}
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
