using System.Diagnostics;

namespace RuddySpring.Measure;

/// <summary>How long the server takes to its first answer, beside an empty application of the same framework and store.</summary>
public static class StartTimes
{
    private const int Rounds = 5;

    /// <summary>Both in turn, the middle of some rounds each.</summary>
    public static async Task<IReadOnlyList<Row>> MeasureAsync()
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-start-").FullName;
        try
        {
            var ours = ServerProgram.Location;
            var empty = typeof(EmptyServer.EmptyContext).Assembly.Location;
            // the first start makes the database
            await FirstAnswerAsync([ours, "--port", "0", "--data", folder], "/api/household");
            await FirstAnswerAsync([empty, Path.Combine(folder, "empty.db")], "/");
            var (mine, its) = (new List<double>(), new List<double>());
            for (var i = 0; i < Rounds; i++)
            {
                mine.Add(await FirstAnswerAsync([ours, "--port", "0", "--data", folder], "/api/household"));
                its.Add(await FirstAnswerAsync([empty, Path.Combine(folder, "empty.db")], "/"));
            }

            return
            [
                Row.AtMost(
                    "server: start to first answer, over an empty application with one migration",
                    Row.Percentile(mine, 0.5) / Row.Percentile(its, 0.5),
                    "times",
                    1.6
                ),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>Seconds from the program's start to its first answer.</summary>
    private static async Task<double> FirstAnswerAsync(string[] command, string path)
    {
        var since = Stopwatch.StartNew();
        await using var server = await ServerProgram.StartAsync(command);
        await server.Http.GetStringAsync(new Uri(path, UriKind.Relative));
        return since.Elapsed.TotalSeconds;
    }
}
