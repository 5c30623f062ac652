using System.Text.Json.Nodes;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Exchange;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>One made-up pull written in the ways other programs write it: 33 g, 8 bar at the peak, first drops at 8.5 s, gone at
/// 38 s.</summary>
public sealed class ImportTests(LiveServer server) : IClassFixture<LiveServer>
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Exchange", "Samples");

    private static JsonObject FileOf(string name) =>
        new()
        {
            ["fileName"] = name,
            ["contentBase64"] = Convert.ToBase64String(File.ReadAllBytes(Path.Combine(Folder, name))),
            ["columns"] = null,
        };

    private static JsonObject FileOf(string name, string text) =>
        new()
        {
            ["fileName"] = name,
            ["contentBase64"] = Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes(text)),
            ["columns"] = null,
        };

    private static JsonObject Request(JsonObject file, params (string Field, JsonNode? Value)[] said)
    {
        var shot = new JsonObject
        {
            ["pulledAt"] = "2026-01-05T07:10:00Z",
            ["machineId"] = 1,
            ["brewerId"] = null,
            ["bagId"] = null,
            ["grinderId"] = null,
            ["grindSetting"] = null,
            ["doseGrams"] = 15.5,
        };
        foreach (var (field, value) in said)
            shot[field] = value?.DeepClone();
        return new()
        {
            ["file"] = file.DeepClone(),
            ["shot"] = shot,
            ["answered"] = new JsonArray("SameFile"),
            ["clock"] = "Lever",
        };
    }

    private async Task<JsonNode> PreviewAsync(JsonObject file, params (string Field, JsonNode? Value)[] said)
    {
        var (status, preview) = await server.SendAsync(HttpMethod.Post, "/api/exchange/preview", Request(file, said));
        Assert.True(status == 200, preview?.ToJsonString());
        return preview!;
    }

    [Theory]
    [InlineData("comma.csv", "comma", false, true)]
    [InlineData("semicolon-decimal-comma.csv", "semicolon", true, true)]
    [InlineData("tab-psi-ms.tsv", "tab", false, true)]
    [InlineData("kpa-clock.csv", "comma", false, true)]
    [InlineData("no-header.csv", "comma", false, false)]
    [InlineData("bom-crlf.csv", "comma", false, true)]
    public async Task Each_dialect_gives_the_same_shot(string name, string separator, bool decimalComma, bool header)
    {
        var preview = await PreviewAsync(FileOf(name));
        Assert.Empty(preview["errors"]!.AsArray());
        Assert.Equal(separator, (string)preview["separator"]!);
        Assert.Equal(decimalComma, (bool)preview["decimalComma"]!);
        Assert.Equal(header, (bool)preview["hasHeader"]!);
        Assert.Equal(210, (int)preview["rows"]!);

        var id = (int)(await server.PostAsync("/api/exchange/import", Request(FileOf(name))))!["shotId"]!;
        var shot = await server.GetAsync($"/api/shots/{id}");
        var measures = shot["shot"]!["measures"]!;
        Assert.Equal(33.0, (double)measures["cupGrams"]!, 0.2);
        Assert.Equal(8.0, (double)measures["peakBar"]!, 0.25);
        Assert.Equal(8.5, (double)measures["secondsToDrops"]!, 0.6);
        Assert.Equal(38.5, (double)measures["secondsFromLever"]!, 1.0);
        Assert.Equal("Imported", (string)shot["shot"]!["source"]!);
        Assert.Contains(name, (string)shot["notices"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Gaps_empty_cells_and_rows_out_of_order_are_put_right_and_said()
    {
        var preview = await PreviewAsync(FileOf("gaps-out-of-order.csv"));
        Assert.Empty(preview["errors"]!.AsArray());
        var notes = preview["notes"]!.ToJsonString();
        foreach (var part in new[] { "out of order", "nothing between", "start at 5 s", "repeat a time" })
            Assert.Contains(part, notes, StringComparison.Ordinal);
        Assert.Equal(33.0, (double)preview["measures"]!["cupGrams"]!, 0.3);
    }

    [Fact]
    public async Task Other_encodings_are_read()
    {
        var preview = await PreviewAsync(FileOf("utf16.csv"));
        Assert.Equal(["Time", "Pressure"], preview["columns"]!.AsArray().Select(c => (string)c!["role"]!));
        Assert.Null(preview["curves"]!["weightGrams"]);
    }

    [Fact]
    public async Task A_bad_cell_is_named_by_line_and_column_and_nothing_is_kept()
    {
        var before = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        var preview = await PreviewAsync(FileOf("bad-cell.csv"));
        Assert.Equal("Line 42, pressure (bar): \"n/a\" is not a number.", (string)preview["errors"]![0]!);
        Assert.Null(preview["curves"]);
        var request = Request(FileOf("bad-cell.csv"));
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/exchange/import", request);
        Assert.Equal(400, status);
        Assert.Contains("Line 42", (string)problem!["detail"]!, StringComparison.Ordinal);
        Assert.Equal(before, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
    }

    [Fact]
    public async Task A_person_can_say_otherwise_about_the_columns()
    {
        var file = FileOf(
            "strange.csv",
            "a,b,c\n"
                + string.Concat(
                    Enumerable.Range(0, 50).Select(i => FormattableString.Invariant($"{i * 200},{i % 9},{i * 0.6}\n"))
                )
        );
        var guess = await PreviewAsync(file);
        Assert.NotEmpty(guess["errors"]!.AsArray());
        file["columns"] = JsonNode.Parse(
            """[{"index":0,"name":"a","role":"Time","unit":"ms"},{"index":1,"name":"b","role":"Pressure","unit":"bar"},{"index":2,"name":"c","role":"Weight","unit":"g"}]"""
        );
        var told = await PreviewAsync(file);
        Assert.Empty(told["errors"]!.AsArray());
        Assert.Equal(29.4, (double)told["measures"]!["cupGrams"]!, 0.3);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("just one line", "fewer than two lines")]
    [InlineData("one\ntwo\nthree", "only one column")]
    [InlineData("a\0b,c\n1,2\n", "not text")]
    public async Task What_is_no_trace_is_refused_with_a_reason(string text, string part)
    {
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/exchange/preview", Request(FileOf("x.csv", text)));
        Assert.Equal(400, status);
        Assert.Contains(part, (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Wrong_units_are_caught_by_their_size()
    {
        var file = FileOf("comma.csv");
        file["columns"] = JsonNode.Parse(
            """[{"index":0,"name":"t","role":"Time","unit":"min"},{"index":1,"name":"p","role":"Pressure","unit":"bar"}]"""
        );
        Assert.Contains(
            "a pull lasts at most 600 s",
            (await PreviewAsync(file))["errors"]!.ToJsonString(),
            StringComparison.Ordinal
        );
        file["columns"] = JsonNode.Parse(
            """[{"index":0,"name":"t","role":"Time","unit":"s"},{"index":1,"name":"p","role":"Pressure","unit":"stone"}]"""
        );
        Assert.Contains(
            "use one of bar, psi, kPa",
            (await PreviewAsync(file))["errors"]!.ToJsonString(),
            StringComparison.Ordinal
        );
    }

    [Fact] // RFC 4180: CR LF, a header, as many cells in every row; and it comes back as it was
    public async Task An_exported_trace_comes_back_without_loss()
    {
        var text = await server.Http.GetStringAsync(new Uri("/api/shots/3/trace.csv", UriKind.Relative));
        var lines = text.Split("\r\n");
        Assert.Equal("time (s),pressure (bar),weight (g)", lines[0]);
        Assert.All(lines[..^1], l => Assert.Equal(3, l.Split(',').Length));
        var table = CsvTable.Read(text);
        var back = TraceCsvReader.Read(table, ColumnGuess.Of(table)).Trace!;
        var origin = (await server.GetAsync("/api/shots/3"))["origins"]!.AsArray();
        Assert.Equal((int)origin[0]!["samples"]!, back.Of(Channel.Pressure)!.Count);
        Assert.Equal(text, TraceCsvWriter.Write(back));
    }

    [Fact] // 5.8 MB of commas once took 20 s and came back as 159 MB
    public Task Columns_without_end_are_refused_at_once() => LiveServer.WithinAsync(5, async () =>
        {
            foreach (
                var text in new[]
                {
                    new string(',', 5_800_000) + "\n1\n",
                    string.Join('\n', Enumerable.Repeat(new string(',', 300), 40)),
                    $"a,b\n{new string(',', 100)}\n",
                }
            )
            {
                var (status, problem) = await server.SendAsync(
                    HttpMethod.Post,
                    "/api/exchange/preview",
                    Request(FileOf("commas.csv", text))
                );
                Assert.Equal(400, status);
                Assert.Equal("file", (string)problem!["field"]!);
                Assert.Matches("at most 64 are read|a row of a trace is shorter", (string)problem["detail"]!);
            }
        });

    [Theory]
    [InlineData("bagId", "999", "There is no bag with number 999")]
    [InlineData("machineId", "0", "There is no machine with number 0")]
    [InlineData("grinderId", "77", "There is no grinder with number 77")]
    [InlineData("brewerId", "-1", "There is no person with number -1")]
    [InlineData("pulledAt", "\"0001-01-01T00:00:00Z\"", "must lie between 1950-01-01 and today")]
    [InlineData("doseGrams", "1e300", "Dose")]
    [InlineData("yieldGrams", "0.1", "Yield")]
    [InlineData("groupC", "400", "it must lie between 0 and 150 degC")]
    [InlineData("planKey", "\"no-such-plan\"", "There is no plan of that name")]
    [InlineData("basketId", "99", "There is no basket with number 99")]
    public async Task What_an_import_refers_to_has_to_be_there(string field, string value, string part)
    {
        var request = Request(FileOf("comma.csv"), (field, JsonNode.Parse(value)));
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/exchange/import", request);
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
        Assert.Contains(part, (string)problem["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_broken_quotation_gets_a_sentence_without_a_programmers_word()
    {
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/exchange/preview",
            Request(FileOf("quote.csv", "time,pressure\n0,\"1\n" + new string('x', 9000) + "\n1,2\n"))
        );
        Assert.Equal(400, status);
        Assert.DoesNotContain("Exception", problem!.ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_import_takes_what_a_shot_has_and_the_preview_shows_what_is_stored()
    {
        (string, JsonNode?)[] said =
        [
            ("doseGrams", 17.2),
            ("yieldGrams", 36),
            ("planKey", "long-soft"),
            ("basketId", 1),
            ("groupC", 78.5),
            ("waterC", 91),
            ("seen", "a spurt at the left"),
            ("bagId", 1),
            ("grinderId", 1),
            ("grindSetting", 19),
            ("pulledAt", "2026-11-20T07:10:00Z"),
            (
                "preparation",
                JsonNode.Parse("""{"misted":true,"stirred":true,"tapped":false,"tampKgf":4,"cover":"Screen","bottomless":true}""")
            ),
        ];
        var preview = await PreviewAsync(FileOf("comma.csv"), said);
        var id = (int)(await server.PostAsync("/api/exchange/import", Request(FileOf("comma.csv"), said)))!["shotId"]!;
        var shot = await server.GetAsync($"/api/shots/{id}");
        Assert.Equal(shot["shot"]!["measures"]!.ToJsonString(), preview["measures"]!.ToJsonString());
        Assert.Equal(shot["moments"]!.ToJsonString(), preview["moments"]!.ToJsonString());
        Assert.Equal(shot["curves"]!.ToJsonString(), preview["curves"]!.ToJsonString());
        Assert.NotNull(shot["curves"]!["planBar"]);
        Assert.Equal(33.0 / 17.2, (double)preview["measures"]!["ratio"]!, 0.02);
        Assert.Equal(36, (double)shot["shot"]!["yieldGrams"]!);
        Assert.Equal(78.5, (double)shot["groupC"]!);
        Assert.Equal("a spurt at the left", (string)shot["seen"]!);
        Assert.Contains("4 kgf", (string)shot["preparation"]!, StringComparison.Ordinal);
        Assert.NotEqual("", (string)shot["basket"]!);
    }

    [Fact]
    public async Task The_same_file_a_far_setting_and_a_shot_older_than_its_beans_are_asked_about()
    {
        var file = FileOf(
            "asked.csv",
            "time (s),pressure (bar),weight (g)\n"
                + string.Concat(
                    Enumerable
                        .Range(0, 400)
                        .Select(i =>
                            FormattableString.Invariant(
                                $"{i * 0.1:0.0},{(i is > 5 and < 350 ? 8 : 0)},{Math.Max(0, i - 80) * 0.1:0.0}\n"
                            )
                        )
                )
        );
        (string, JsonNode?)[] odd = [("bagId", 1), ("grinderId", 1), ("grindSetting", 90), ("pulledAt", "2020-01-05T07:10:00Z")];
        (string, JsonNode?)[] usual =
        [
            ("bagId", 1),
            ("grinderId", 1),
            ("grindSetting", 19),
            ("pulledAt", "2026-11-20T07:10:00Z"),
        ];
        Assert.Empty((await PreviewAsync(file, usual))["questions"]!.AsArray());
        await server.PostAsync("/api/exchange/import", Request(file, usual));
        var asked = (await PreviewAsync(file, odd))["questions"]!.AsArray();
        Assert.Equal(["SameFile", "FarSetting", "BeforeRoasting"], asked.Select(q => (string)q!["kind"]!));
        Assert.InRange((double)asked[1]!["high"]!, 15, 30);
        var before = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        var request = Request(file, odd);
        foreach (var kind in new[] { "SameFile", "FarSetting", "BeforeRoasting" })
        {
            request["answered"] = new JsonArray([
                .. new[] { "SameFile", "FarSetting", "BeforeRoasting" }.Where(k => k != kind).Select(k => (JsonNode)k),
            ]);
            var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/exchange/import", request);
            Assert.Equal(400, status);
            Assert.Equal("answered", (string)problem!["field"]!);
            Assert.Contains(kind, (string)problem["detail"]!, StringComparison.Ordinal);
        }

        Assert.Equal(before, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
        request["answered"] = new JsonArray("SameFile", "FarSetting", "BeforeRoasting");
        await server.PostAsync("/api/exchange/import", request);
    }

    [Fact]
    public async Task An_ordinary_file_of_instruments_that_speak_at_their_own_times_gets_no_notice()
    {
        var text = await server.Http.GetStringAsync(new Uri("/api/shots/5/trace.csv", UriKind.Relative));
        Assert.Empty((await PreviewAsync(FileOf("own.csv", text)))["notes"]!.AsArray());
    }

    [Fact]
    public async Task What_was_put_right_in_a_trace_is_told_before_it_is_kept()
    {
        // twenty idle seconds, a gauge that rests at 0.6 bar, and the cup lifted at the end
        var rows = Enumerable
            .Range(0, 700)
            .Select(i => i * 0.1)
            .Select(t =>
                FormattableString.Invariant(
                    $"{t:0.0},{0.6 + (t is > 20 and < 55 ? Math.Min(8, (t - 20) * 3) : 0):0.00},{(t > 65 ? -120 : t < 30 ? 0 : Math.Min(t, 55) * 1.4 - 42):0.0}\n"
                )
            );
        var preview = await PreviewAsync(FileOf("lifelike.csv", "time (s),pressure (bar),weight (g)\n" + string.Concat(rows)));
        Assert.Equal(
            ["GaugeRest", "IdleBefore", "CupLifted"],
            preview["corrections"]!.AsArray().Select(c => (string)c!["kind"]!)
        );
        Assert.Equal(35, (double)preview["measures"]!["cupGrams"]!, 0.2);
        Assert.Equal(35, (double)preview["measures"]!["secondsFromLever"]!, 0.3);
        Assert.Equal(8, (double)preview["measures"]!["peakBar"]!, 0.1);
    }
}
