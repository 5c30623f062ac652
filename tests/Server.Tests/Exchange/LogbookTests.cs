using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Microsoft.Data.Sqlite;
using RuddySpring.Server.Exchange.Logbooks;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>Logbooks as spreadsheets: out, in, and in ways in which other people keep them.</summary>
public sealed class LogbookTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Before = WithoutShots };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private static void WithoutShots(string file)
    {
        using var db = new SqliteConnection($"Data Source={file}");
        db.Open();
        using var delete = db.CreateCommand();
        delete.CommandText = "DELETE FROM Traces; DELETE FROM Shots;";
        delete.ExecuteNonQuery();
    }

    private static JsonObject FileOf(string text, JsonNode? answers = null) =>
        new()
        {
            ["fileName"] = "logbook.csv",
            ["contentBase64"] = Convert.ToBase64String(Encoding.UTF8.GetBytes(text)),
            ["answers"] = answers?.DeepClone(),
        };

    private async Task<JsonNode> PreviewAsync(string text, JsonNode? answers = null)
    {
        var (status, preview) = await _server.SendAsync(HttpMethod.Post, "/api/exchange/logbook/preview", FileOf(text, answers));
        Assert.True(status == 200, preview?.ToJsonString());
        return preview!;
    }

    private Task<JsonNode?> StoreAsync(string text, JsonNode? answers = null) =>
        _server.PostAsync("/api/exchange/logbook/import", FileOf(text, answers));

    [Fact]
    public async Task A_logbook_comes_back_as_it_was_written()
    {
        await using var sample = new LiveServer();
        await sample.InitializeAsync();
        var shot = (await sample.GetAsync("/api/shots?size=1"))["shots"]![0]!;
        await sample.SendAsync(
            HttpMethod.Put,
            $"/api/shots/{(int)shot["id"]!}/taste?version={(int)shot["version"]!}",
            JsonNode.Parse("""{"sour":1,"bitter":null,"dry":0,"sweet":4,"body":2,"liking":5,"words":"=1+1, \"nuts\";\n'so'"}""")
        );
        var written = await sample.Http.GetStringAsync("/api/exchange/logbook.csv");
        Assert.Contains("\"'=1+1, \"\"nuts\"\";\n'so'\"", written, StringComparison.Ordinal);
        Assert.Equal(55, (int)(await StoreAsync(written))!["stored"]!);
        Assert.Equal(written, await _server.Http.GetStringAsync("/api/exchange/logbook.csv"));

        var again = await StoreAsync(written);
        Assert.Equal((0, 55), ((int)again!["stored"]!, (int)again["already"]!));
    }

    [Fact]
    public void Any_text_comes_back_and_none_begins_a_formula() =>
        Gen.OneOf(Gen.String, RandomHousehold.Line, Gen.Char["=+-@'\t\r ab"].Array[0, 4].Select(c => new string(c)))
            .Sample(text =>
            {
                var written = LogbookText.Written(text);
                Assert.Equal(text, LogbookText.Read(written));
                Assert.False(written.Length > 0 && "=+-@\t\r".Contains(written[0]));
            });

    private const string Strange = """
        Datum;Uhrzeit;Bohnen;Röster;Mühle;Mahlgrad;Dosis (g);Ertrag;Zeit;Punkte;Notizen
        26.11.2026;06:10;Gentian;Ninth Switchback;Hand mill;19,5;15,2;33,1;0:42;8;nussig
        26.11.2026;06:25;Gentian;Ninth Switchback;Hand mill;19,0;15,0;32,4;0:47;9;
        13.11.2026;06:25;Larch;Own;Mill 2;7,5;16,0;30;0:38;6;etwas scharf
        """;

    [Fact]
    public async Task A_spreadsheet_in_its_own_words_is_understood_and_its_way_remembered()
    {
        var first = await PreviewAsync(Strange);
        Assert.False((bool)first["isRemembered"]!);
        Assert.Contains("clock", (string)first["errors"]![0]!, StringComparison.Ordinal);
        var roles = first["answers"]!["columns"]!.AsArray().Select(c => (string)c!["role"]!).ToList();
        Assert.Equal(
            ["PulledAt", "TimeOfDay", "Coffee", "Roaster", "Grinder", "Grind", "Dose", "Cup", "Seconds", "Liking", "Words"],
            roles
        );
        var answers = first["answers"]!.DeepClone();
        answers["clock"] = "FirstDrops";
        answers["restDays"] = 12;
        var told = await PreviewAsync(Strange, answers);
        Assert.Empty(told["errors"]!.AsArray());
        Assert.Equal(3, (int)told["new"]!);
        var adds = told["adds"]!.ToJsonString();
        Assert.Contains("Larch", adds, StringComparison.Ordinal);
        Assert.Contains("roasted 12 days before", adds, StringComparison.Ordinal);
        Assert.Equal(3, (int)(await StoreAsync(Strange, answers))!["stored"]!);

        var newest = (await _server.GetAsync("/api/shots?size=1"))["shots"]![0]!;
        Assert.Equal(new DateTime(2026, 11, 26, 6, 25, 0, DateTimeKind.Local).ToUniversalTime(), (DateTime)newest["pulledAt"]!);
        Assert.Equal(15.0, (double)newest["doseGrams"]!);
        Assert.Equal(19.0, (double)newest["grindSetting"]!);
        Assert.Equal(5, (int)newest["taste"]!["liking"]!); // 9 of 10
        Assert.Equal(47.0, (double)newest["measures"]!["secondsFromDrops"]!);
        Assert.Null(newest["measures"]!["secondsFromPressure"]);
        var larch = (await _server.GetAsync("/api/bench"))["bags"]!.AsArray().Single(b => (string)b!["name"]! == "Larch")!;
        Assert.Equal("2026-11-01", (string)larch["roastedOn"]!);

        var next = await PreviewAsync(Strange.Replace("26.11.2026", "25.11.2026", StringComparison.Ordinal));
        Assert.True((bool)next["isRemembered"]!);
        Assert.Empty(next["errors"]!.AsArray());
        Assert.Equal((2, 1), ((int)next["new"]!, (int)next["already"]!));

        // a shot without a trace is shown, tasted and reasoned about like any other
        var id = (int)newest["id"]!;
        Assert.Equal(200, (await _server.SendAsync(HttpMethod.Get, $"/api/shots/{id}/why", null)).Status);
        Assert.Equal(200, (await _server.SendAsync(HttpMethod.Get, $"/api/shots/{id}/expected", null)).Status);
        Assert.Equal(200, (await _server.SendAsync(HttpMethod.Get, $"/api/shots/{id}/schools", null)).Status);
        Assert.Equal(200, (await _server.SendAsync(HttpMethod.Get, $"/api/shots/compare?ids={id},{id - 1}", null)).Status);
        Assert.Equal(200, (await _server.SendAsync(HttpMethod.Get, "/api/trends?x=grind&y=liking", null)).Status);
        var moved = JsonNode.Parse("""{"stop":20}""");
        await _server.SendAsync(HttpMethod.Put, $"/api/shots/{id}/moments", moved);
        Assert.Equal(47.0, (double)(await _server.GetAsync($"/api/shots/{id}"))["shot"]!["measures"]!["secondsFromDrops"]!);
    }

    [Theory]
    [InlineData("2026-11-26;15", "2026-02-30;15", "Line 2, date: \"2026-02-30\" is not a date")]
    [InlineData("2026-11-26;15", "0000-01-01;15", "is not a date")]
    [InlineData("2026-11-26;15", "9999-12-31;15", "is not a date")]
    [InlineData("2026-11-26;15", "1901-12-31;15", "must lie between")]
    [InlineData("2026-11-26;15", "2026-11-26;1e308", "Line 2, dose: Dose is")]
    [InlineData("2026-11-26;15", "2026-11-26;NaN", "\"NaN\" is not a number")]
    [InlineData("2026-11-26;15", "2026-11-26;", "Line 2: the dose is missing")]
    [InlineData("2026-11-26;15", ";15", "Line 2: the date is missing")]
    public async Task A_faulty_row_is_named_and_nothing_is_stored_unless_it_may_be_left_out(string from, string to, string part)
    {
        const string sound = "date;dose\n2026-11-26;15\n2026-11-25;14.5\n";
        var text = sound.Replace(from, to, StringComparison.Ordinal);
        var preview = await PreviewAsync(text);
        Assert.Contains(part, preview["errors"]!.AsArray().Select(e => (string)e!).First(), StringComparison.Ordinal);
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/exchange/logbook/import", FileOf(text));
        Assert.Equal(400, status);
        Assert.Contains("Nothing was stored", (string)problem!["detail"]!, StringComparison.Ordinal);
        Assert.Equal(0, (int)(await _server.GetAsync("/api/shots"))["total"]!);

        var answers = preview["answers"]!.DeepClone();
        answers["leaveOutFaulty"] = true;
        var stored = await StoreAsync(text, answers);
        Assert.Equal((1, 1), ((int)stored!["stored"]!, (int)stored["leftOut"]!));
    }

    [Theory]
    [InlineData("a\u0001b;c\n1;2\n", 400)]
    [InlineData("x", 400)]
    [InlineData("date;dose\n", 400)]
    public async Task What_is_no_logbook_is_refused(string text, int status) =>
        Assert.Equal(status, (await _server.SendAsync(HttpMethod.Post, "/api/exchange/logbook/import", FileOf(text))).Status);

    [Fact]
    public async Task Too_many_rows_are_refused_and_said()
    {
        var text = "date;dose\n" + string.Concat(Enumerable.Repeat("2026-11-26;15\n", LogbookImport.MostRows + 1));
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/exchange/logbook/preview", FileOf(text));
        Assert.Equal(400, status);
        Assert.Contains("20000", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("03/04/2026", "day first", "2026-04-03")]
    [InlineData("03/04/2026", "month first", "2026-03-04")]
    [InlineData("2026-04-03", "day first", "2026-04-03")]
    [InlineData("3.4.26", "day first", "2026-04-03")]
    public void A_date_is_read_by_the_order_of_its_parts(string cell, string order, string day)
    {
        var moment = LogbookUnits.Moment(cell, order, null, out var hasTime);
        Assert.False(hasTime);
        Assert.Equal(day, moment!.Value.ToLocalTime().ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
    }

    [Theory]
    [InlineData(new[] { "26.11.2026", "01.02.2026" }, "day first")]
    [InlineData(new[] { "11/26/2026", "01/02/2026" }, "month first")]
    [InlineData(new[] { "2026-11-26" }, "year first")]
    public void Their_order_is_told_by_what_cannot_be_a_month(string[] cells, string order) =>
        Assert.Equal(order, LogbookUnits.OrderOf(cells));

    [Theory]
    [InlineData("time of day", "TimeOfDay")]
    [InlineData("Brew Temp (F)", "Water")]
    [InlineData("Rating", "Liking")]
    [InlineData("colour", "Ignore")]
    public async Task A_column_is_guessed_by_its_words(string name, string role)
    {
        var preview = await PreviewAsync($"date;{name};dose\n2026-11-26;;15\n2026-11-25;;15\n");
        Assert.Equal(role, (string)preview["answers"]!["columns"]![1]!["role"]!);
    }

    [Fact]
    public async Task A_zone_is_minded()
    {
        await StoreAsync("date;dose\n2026-11-26T06:00:00+02:00;15\n2026-11-25T06:00:00Z;15\n");
        var shots = (await _server.GetAsync("/api/shots"))["shots"]!.AsArray();
        Assert.Equal("2026-11-26T04:00:00Z", (string)shots[0]!["pulledAt"]!);
        Assert.Equal("2026-11-25T06:00:00Z", (string)shots[1]!["pulledAt"]!);
    }
}
