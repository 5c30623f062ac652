using System.Reflection;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Routing;
using Microsoft.Data.Sqlite;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>What holds for every endpoint.</summary>
public sealed class EndpointTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Fact]
    public void Whatever_asks_the_database_stops_when_nobody_waits_any_more()
    {
        var app = RuddyServer.Build(new ServerOptions(0, server.Folder, false, server.Folder));
        var without = ((IEndpointRouteBuilder)app)
            .DataSources.SelectMany(d => d.Endpoints)
            .OfType<RouteEndpoint>()
            .Select(e => (e.RoutePattern.RawText, Method: e.Metadata.GetMetadata<MethodInfo>()))
            .Where(e => e.Method is not null)
            .Select(e => (e.RawText, Types: e.Method!.GetParameters().Select(p => p.ParameterType).ToList()))
            .Where(e =>
                e.Types.Exists(t => t == typeof(RuddyContext) || t == typeof(SessionDesk))
                && !e.Types.Contains(typeof(CancellationToken))
            )
            .Select(e => e.RawText)
            .ToList();
        Assert.Empty(without);
    }

    [Fact]
    public async Task No_question_changes_anything()
    {
        // a file of the journal that a look at it must leave where it is
        var journal = Path.Combine(server.Folder, "journal");
        Directory.CreateDirectory(journal);
        await File.WriteAllTextAsync(Path.Combine(journal, new string('a', 32) + ".pull"), "{}\n");
        var before = State();
        var paths = (await server.GetAsync("/api/openapi.json"))["paths"]!
            .AsObject()
            .Where(p => p.Value!["get"] is not null)
            .Select(p => p.Key)
            .ToList();
        Assert.True(paths.Count > 15, "few questions were found");
        foreach (var path in paths)
        {
            var asked = path.Replace("{id}", "1", StringComparison.Ordinal)
                .Replace("{key}", "early-peak", StringComparison.Ordinal);
            using var answer = await server.Http.GetAsync(
                new Uri(asked + "?ids=1,2&wantedC=90&bloomSeconds=10", UriKind.Relative)
            );
            Assert.True((int)answer.StatusCode < 500, $"{path}: {answer.StatusCode}");
        }

        Assert.Equal(before, State());
    }

    private string State()
    {
        using var db = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Mode=ReadOnly;Pooling=False");
        db.Open();
        var text = "";
        foreach (
            var table in new[]
            {
                "Households",
                "Sheets",
                "Brewers",
                "Machines",
                "Grinders",
                "Baskets",
                "Bags",
                "Plans",
                "Sessions",
                "Shots",
                "Practice",
            }
        )
        {
            using var command = db.CreateCommand();
            command.CommandText = $"SELECT * FROM {table}";
            using var reader = command.ExecuteReader();
            while (reader.Read())
                text += string.Join(
                    '|',
                    Enumerable
                        .Range(0, reader.FieldCount)
                        .Select(i => reader.GetValue(i) is byte[] bytes ? Convert.ToHexString(bytes) : $"{reader.GetValue(i)}")
                );
        }

        return Convert.ToHexString(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(text)))
            + string.Join(',', Directory.GetFiles(Path.Combine(server.Folder, "journal")));
    }
}
