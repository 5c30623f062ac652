using RuddySpring.Attacks;

namespace RuddySpring.Measure;

/// <summary>The attacks at length: what the tests do for seconds, here for as long as it takes to believe it.</summary>
internal static class AttackTimes
{
    private const ulong Seed = 77;

    public static async Task<IReadOnlyList<Row>> MeasureAsync()
    {
        var rows = new List<Row>();
        var folder = Directory.CreateTempSubdirectory("ruddy-fuzz-").FullName;
        try
        {
            using var server = await ServerProcess.StartAsync(folder);
            var outcome = await new Fuzz(await server.GetAsync("/api/openapi.json"), Seed).RunAsync(server.Http, 20_000);
            foreach (var fault in outcome.Faults)
                Console.Error.WriteLine(fault);
            rows.Add(Row.AtMost("odd requests that got no sentence, of 20 000", outcome.Faults.Count, "requests", 0));
            var machines = (await server.GetAsync("/api/bench"))["machines"]!.AsArray();
            rows.Add(
                Row.AtMost(
                    "things that they stored and that cannot be read",
                    machines.Count(m => m!["problem"] is not null),
                    "machines",
                    0
                )
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }

        var kills = await Kills.RunAsync(120, Seed);
        foreach (var fault in kills.Faults)
            Console.Error.WriteLine(fault);
        rows.Add(Row.AtMost("120 kills: what was lost, doubled or not whole", kills.Faults.Count, "faults", 0));
        rows.Add(Row.AtMost("120 kills: most that was lost of a running pull", kills.MostLostSeconds, "s", Kills.MostLost));
        rows.Add(
            Row.AtMost("120 kills: slowest start after one, processor time", kills.LongestStartSeconds, "s", Kills.LongestStart)
        );

        var data = await DataKills.RunAsync(80, Seed);
        foreach (var fault in data.Faults)
            Console.Error.WriteLine(fault);
        rows.Add(
            Row.AtMost("80 kills amid backups, restores and imports: what was lost or not whole", data.Faults.Count, "faults", 0)
        );

        var soak = await Soak.RunAsync(600, Seed);
        foreach (var fault in soak.Faults)
            Console.Error.WriteLine(fault);
        rows.Add(Row.AtMost("soak of 10 min: samples of the pull that are missing", soak.Sent - soak.Kept, "samples", 0));
        rows.Add(Row.AtMost("soak of 10 min: memory grown", soak.GrownMegabytes, "MB", 20));
        rows.Add(Row.AtLeast("soak of 10 min: times the disk was full", soak.FullDisks, "times", 5));
        rows.Add(Row.AtMost("soak of 10 min: other faults", soak.Faults.Count, "faults", 0));
        return rows;
    }
}
