using System.Globalization;
using System.Text.Json;
using RuddySpring.Measure;

// Measures what needs no browser. Rows go to the file named by --json, one JSON object a line, for the script that prints them
// all.
// --fill DIR N makes a household with N shots besides the sample's own and measures nothing
if (args is ["--fill", var filled, var count])
{
    ManyShots.Fill(filled, int.Parse(count, CultureInfo.InvariantCulture));
    return 0;
}

if (args is [PlainServer.Argument, var served])
{
    await PlainServer.RunAsync(served);
    return 0;
}

var quick = args.Contains("--quick");
var rows = new List<Row>();
void Add(IEnumerable<Row> more) => rows.AddRange(more);

// --only core, ledger, growth, start, live, load, coach or attacks, while working on one of them
var onlyAt = Array.IndexOf(args, "--only");
bool Wanted(string part) => onlyAt < 0 || onlyAt + 1 >= args.Length || args[onlyAt + 1] == part;

if (Wanted("core"))
    Add(CoreTimes.Measure(quick));
if (Wanted("ledger"))
    Add(await LedgerTimes.MeasureAsync(quick));
if (Wanted("growth"))
    Add(await GrowthTimes.MeasureAsync(quick));
if (Wanted("start"))
    Add(await StartTimes.MeasureAsync());
if (args.Contains("--full") && Wanted("coach"))
    Add(CoachLimit.Measure());
if (args.Contains("--full") && Wanted("attacks"))
    Add(await AttackTimes.MeasureAsync());
if (Wanted("live"))
    Add(
        await LiveTimes.MeasureAsync(
            args.Contains("--full") ? 600
            : quick ? 8
            : 30
        )
    );
if (Wanted("load"))
    Add(
        await LoadTimes.MeasureAsync(
            args.Contains("--full") ? 120
            : quick ? 10
            : 40
        )
    );

var at = Array.IndexOf(args, "--json");
var lines = rows.Select(r => JsonSerializer.Serialize(r, Row.Json));
if (at >= 0 && at + 1 < args.Length)
    await File.WriteAllLinesAsync(args[at + 1], lines);
else
    foreach (var line in lines)
        Console.WriteLine(line);
return rows.All(r => r.Ok) ? 0 : 1;
