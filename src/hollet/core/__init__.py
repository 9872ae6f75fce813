"""The rules of the job and all computation: no files, no clock, no randomness, no network."""
