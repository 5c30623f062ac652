using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Data.Sqlite;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Tasting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Measure;

/// <summary>A page of the ledger as somebody would write it by hand for this one table: SQL and a reader of
/// Microsoft.Data.Sqlite, and the answer in JSON. The server is held against it, and must answer the same.</summary>
internal sealed class PlainLedger : IDisposable
{
    /// <summary>The order of the ledger.</summary>
    public const string Newest = "PulledAt DESC, Id DESC";

    private const int Size = 50;
    private static readonly JsonSerializerOptions Answers = Options();
    private readonly SqliteConnection _connection;

    public PlainLedger(string folder)
    {
        _connection = new($"Data Source={Path.Combine(folder, StoreFile.FileName)};Mode=ReadOnly");
        _connection.Open();
    }

    /// <summary>The answer to a question.</summary>
    /// <param name="where">Which shots.</param>
    /// <param name="order">In which order.</param>
    /// <param name="page">From 0.</param>
    public byte[] Answer(string where, string order, int page)
    {
        var lines = new List<ShotLine>();
        using (var command = _connection.CreateCommand())
        {
            command.CommandText =
                "SELECT s.Id, s.Version, s.PulledAt, s.Source, r.Name, m.Name, b.Name, b.Roaster, g.Name, g.ScaleUnit, "
                + "s.GrindSetting, s.DoseGrams, s.YieldGrams, s.WaterC, s.PlanName, s.Measures, s.Taste_Sour, s.Taste_Bitter, "
                + "s.Taste_Dry, s.Taste_Sweet, s.Taste_Body, s.Liking, s.Taste_Words, s.Tapped, s.Strength, s.Before, "
                + $"s.SmallPressure, s.SmallWeight FROM (SELECT * FROM Shots WHERE {where} ORDER BY {order} "
                + $"LIMIT {Size + 1} OFFSET {page * Size}) s LEFT JOIN Brewers r ON r.Id = s.BrewerId "
                + "LEFT JOIN Machines m ON m.Id = s.MachineId LEFT JOIN Bags b ON b.Id = s.BagId "
                + $"LEFT JOIN Grinders g ON g.Id = s.GrinderId ORDER BY {Of("s", order)}";
            using var reader = command.ExecuteReader();
            while (reader.Read())
                lines.Add(Line(reader));
        }

        int? total = order == Newest && page == 0 && lines.Count <= Size ? lines.Count : null;
        return JsonSerializer.SerializeToUtf8Bytes(
            new LedgerPage(total, false, lines.Count > Size, page, Size, [.. lines.Take(Size)]),
            Answers
        );
    }

    /// <summary>Whether two answers say the same.</summary>
    public static bool Same(byte[] one, byte[] other) => JsonNode.DeepEquals(JsonNode.Parse(one), JsonNode.Parse(other));

    public void Dispose() => _connection.Dispose();

    private static string Of(string table, string order) => string.Join(", ", order.Split(", ").Select(o => $"{table}.{o}"));

    private static ShotLine Line(SqliteDataReader row)
    {
        string Text(int i) => row.IsDBNull(i) ? "" : row.GetString(i);
        double? Number(int i) => row.IsDBNull(i) ? null : row.GetDouble(i);
        int? Whole(int i) => row.IsDBNull(i) ? null : row.GetInt32(i);
        T? Json<T>(int i)
            where T : class => row.IsDBNull(i) ? null : JsonSerializer.Deserialize<T>(row.GetString(i), RuddyContext.Json);
        return new(
            row.GetInt32(0),
            row.GetInt32(1),
            new DateTime(row.GetInt64(2), DateTimeKind.Utc),
            Enum.Parse<ShotSource>(row.GetString(3)),
            Text(4),
            Text(5),
            Text(6),
            Text(7),
            Text(8),
            Text(9),
            Number(10),
            row.GetDouble(11),
            row.GetDouble(12),
            Number(13),
            row.GetString(14),
            Json<Measures>(15)!,
            new TasteView(
                Whole(16),
                Whole(17),
                Whole(18),
                Whole(19),
                Whole(20),
                Whole(21),
                Text(22),
                Json<IReadOnlyList<Seen>>(23),
                Number(24) is { } strength ? Math.Round(strength * 100, 2) : null,
                Json<TickedBefore>(25)
            ),
            (byte[])row[26],
            (byte[])row[27]
        );
    }

    private static JsonSerializerOptions Options()
    {
        var options = new JsonOptions().SerializerOptions;
        ContractJson.Set(options);
        return options;
    }
}
