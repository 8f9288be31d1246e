-- Prints the 95th percentile in milliseconds, which wrk itself does not.
done = function(summary, latency, requests)
  io.write(string.format("p95 %.2f\n", latency:percentile(95) / 1000))
  if summary.errors.status > 0 then io.write(string.format("errors %d\n", summary.errors.status)) end
end
