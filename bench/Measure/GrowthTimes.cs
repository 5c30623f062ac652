using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace RuddySpring.Measure;

/// <summary>What the daily job costs with 100 000 shots behind it, beside the same with 100: both are asked in turn.</summary>
internal static class GrowthTimes
{
    private const double Most = 1.3;
    private const int Sample = 55;

    private static readonly (string Name, Func<HttpClient, Task> Ask)[] Questions =
    [
        ("Prepare as typed", TypeAsync),
        ("a prediction", http => GetAsync(http, "/api/prepare/prediction")),
        ("a pull made ready", ReadyAsync),
        ("what the grinder taught", http => GetAsync(http, "/api/prepare/landing")),
        ("why a shot was as it was", http => GetAsync(http, $"/api/shots/{Sample - 1}/why")),
        ("a puck read back", http => GetAsync(http, $"/api/shots/{Sample - 1}/puck")),
    ];

    public static async Task<IReadOnlyList<Row>> MeasureAsync(bool quick)
    {
        var folders = new[] { 100 - Sample, 100_000 }
            .Select(count =>
            {
                var folder = Directory.CreateTempSubdirectory("ruddy-growth-").FullName;
                ManyShots.Fill(folder, count);
                return folder;
            })
            .ToList();
        SqliteConnection.ClearAllPools();
        try
        {
            await using var few = await ServerProgram.StartAsync(folders[0]);
            await using var many = await ServerProgram.StartAsync(folders[1]);
            var rows = new List<Row>();
            foreach (var (name, ask) in Questions)
            {
                var (withFew, withMany) = (new List<double>(), new List<double>());
                for (var turn = 0; turn < (quick ? 25 : 60); turn++)
                {
                    var (one, other) = (await TimeAsync(few.Http, ask), await TimeAsync(many.Http, ask));
                    if (turn < 8)
                        continue;
                    withFew.Add(one);
                    withMany.Add(other);
                }

                rows.Add(
                    Row.AtMost(
                        $"100 000 shots over 100: {name} (median)",
                        Row.Percentile(withMany, 0.5) / Row.Percentile(withFew, 0.5),
                        "times",
                        Most
                    )
                );
            }

            return rows;
        }
        finally
        {
            foreach (var folder in folders)
                Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<double> TimeAsync(HttpClient http, Func<HttpClient, Task> ask)
    {
        var from = Stopwatch.GetTimestamp();
        await ask(http);
        return Stopwatch.GetElapsedTime(from).TotalMilliseconds;
    }

    private static Task<byte[]> GetAsync(HttpClient http, string path) => http.GetByteArrayAsync(new Uri(path, UriKind.Relative));

    /// <summary>A tenth of a gram more or less.</summary>
    private static async Task TypeAsync(HttpClient http)
    {
        var now = (await http.GetFromJsonAsync<JsonNode>("/api/prepare"))!;
        var sheet = now["sheet"]!.DeepClone();
        sheet["doseGrams"] = (double)sheet["doseGrams"]! > 15 ? 14.9 : 15.1;
        (await http.PutAsJsonAsync($"/api/prepare?version={now["version"]}", sheet)).EnsureSuccessStatusCode();
    }

    private static async Task ReadyAsync(HttpClient http)
    {
        var now = (await http.GetFromJsonAsync<JsonNode>("/api/prepare"))!;
        var ready = await http.PostAsJsonAsync("/api/pull/ready", new { sheetVersion = (int)now["version"]! });
        ready.EnsureSuccessStatusCode();
    }
}
