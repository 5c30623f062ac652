using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Ledger;

/// <summary>A text gone through by itself, held against SQLite's own full-text index with the same tokenizer.</summary>
public sealed class SearchWordsTests
{
    [Fact]
    public void A_text_holds_what_the_index_finds_in_it()
    {
        string[] texts =
        [
            "Saddle Wind Scree and Lantern Hall spring",
            "Kaffee f\u00fcr \u00dcberm\u00fctige, Hand-mill",
            "na\u00efve caf\u00e9 2026",
            "o'clock; semi;colon",
            "\u0141\u00f3d\u017a \u00c5ngstr\u00f6m",
            "",
        ];
        string[] searches =
        [
            "saddle",
            "sad win",
            "wind saddle",
            "dle",
            "uber fur",
            "\u00dcBER",
            "cafe",
            "clock",
            "mill 2",
            "angst",
            "colon sem",
        ];
        using var db = new SqliteConnection("Data Source=:memory:");
        db.Open();
        Run(db, "CREATE VIRTUAL TABLE t USING fts5(x, tokenize='unicode61 remove_diacritics 2')");
        foreach (var text in texts)
            Run(db, "INSERT INTO t(x) VALUES ($1)", text);
        foreach (var search in searches)
        {
            using var ask = db.CreateCommand();
            ask.CommandText = "SELECT x FROM t WHERE t MATCH $1";
            ask.Parameters.AddWithValue("$1", ShotSearch.Match(search));
            using var reader = ask.ExecuteReader();
            var found = new List<string>();
            while (reader.Read())
                found.Add(reader.GetString(0));
            Assert.Equal(found.Order(), texts.Where(t => SearchWords.Holds(t, SearchWords.Folded(search))).Order());
        }
    }

    private static void Run(SqliteConnection db, string sql, params string[] values)
    {
        using var command = db.CreateCommand();
        command.CommandText = sql;
        for (var i = 0; i < values.Length; i++)
            command.Parameters.AddWithValue($"${i + 1}", values[i]);
        command.ExecuteNonQuery();
    }
}
