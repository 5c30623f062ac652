using Microsoft.EntityFrameworkCore;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store;

/// <summary>Full-text search over the shots' words, by SQLite's FTS5; triggers of the database keep its index in step.</summary>
public static class ShotSearch
{
    private const int MostWords = 8;
    private const int Common = 1000;

    /// <summary>SQL that makes the index and its triggers.</summary>
    public const string CreateSql = """
        CREATE VIRTUAL TABLE ShotSearch USING fts5(SearchText, content='Shots', content_rowid='Id', prefix='2 3', tokenize='unicode61 remove_diacritics 2');
        CREATE TRIGGER ShotSearchInsert AFTER INSERT ON Shots BEGIN
          INSERT INTO ShotSearch(rowid, SearchText) VALUES (new.Id, new.SearchText);
        END;
        CREATE TRIGGER ShotSearchDelete AFTER DELETE ON Shots BEGIN
          INSERT INTO ShotSearch(ShotSearch, rowid, SearchText) VALUES ('delete', old.Id, old.SearchText);
        END;
        CREATE TRIGGER ShotSearchUpdate AFTER UPDATE OF SearchText ON Shots BEGIN
          INSERT INTO ShotSearch(ShotSearch, rowid, SearchText) VALUES ('delete', old.Id, old.SearchText);
          INSERT INTO ShotSearch(rowid, SearchText) VALUES (new.Id, new.SearchText);
        END;
        """;

    private const string WordsOf = """
        trim(coalesce((SELECT Name || ' ' || Roaster FROM Bags WHERE Bags.Id = Shots.BagId), '')
          || ' ' || coalesce((SELECT Name FROM Machines WHERE Machines.Id = Shots.MachineId), '')
          || ' ' || coalesce((SELECT Name FROM Brewers WHERE Brewers.Id = Shots.BrewerId), '')
          || ' ' || coalesce((SELECT Name FROM Grinders WHERE Grinders.Id = Shots.GrinderId), '')
          || ' ' || PlanName || ' ' || Taste_Words)
        """;

    /// <summary>SQL that renews the words of the shots whose <paramref name="column"/> is one of the numbers in the JSON list
    /// {0}.</summary>
    internal static string RenewSql(string column) =>
        $"UPDATE Shots SET SearchText = {WordsOf} WHERE {column} IN (SELECT value FROM json_each({{0}}))";

    /// <summary>Shots that hold every word of a search, each as the beginning of a word; all shots where nothing is
    /// searched.</summary>
    public static async Task<IQueryable<Shot>> InAsync(RuddyContext db, string? search, CancellationToken cancel)
    {
        if (Match(search) is not { } match)
            return db.Shots;
        var some = await db
            .Database.SqlQuery<int>(
                $"SELECT count(*) AS Value FROM (SELECT rowid FROM ShotSearch WHERE ShotSearch MATCH {match} LIMIT {Common})"
            )
            .SingleAsync(cancel);
        // of words that few shots hold, those are looked up and put in order; words that many hold are met soon enough when
        // the shots are gone through in their order, which looking all of them up would only hold up
        return some < Common
            ? db.Shots.FromSql($"SELECT * FROM Shots WHERE Id IN (SELECT rowid FROM ShotSearch WHERE ShotSearch MATCH {match})")
            : db.Shots.FromSqlRaw(
                $"SELECT * FROM Shots WHERE {SearchWords.Function}(SearchText, {{0}})",
                string.Join(' ', Words(SearchWords.Folded(search!)))
            );
    }

    /// <summary>How many shots of the ledger hold every word of a search, counted to <paramref name="most"/>.</summary>
    public static Task<int> CountAsync(RuddyContext db, string search, int most, CancellationToken cancel)
    {
        var match = Match(search);
        return db
            .Database.SqlQuery<int>(
                $"""
                SELECT count(*) AS Value FROM (
                  SELECT 1 FROM ShotSearch f CROSS JOIN Shots s ON s.Id = f.rowid
                  WHERE f.ShotSearch MATCH {match} AND s.DeletedAt IS NULL LIMIT {most})
                """
            )
            .SingleAsync(cancel);
    }

    /// <summary>The search as FTS5 wants it, every word quoted so that none is taken for an operator; null for no word.</summary>
    public static string? Match(string? search)
    {
        var words = Words(search ?? "").ToList();
        return words.Count == 0 ? null : string.Join(' ', words.Select(w => $"\"{w}\"*"));
    }

    private static IEnumerable<string> Words(string search) =>
        new string([.. search.Select(c => char.IsLetterOrDigit(c) ? c : ' ')])
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(MostWords);
}
