using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Hosting;

/// <summary>Looks a large database over once people can work; what is found is told on every screen.</summary>
public sealed class LookOver(ServerOptions options, Troubles troubles, ILogger<LookOver> log) : BackgroundService
{
    private const string Damaged =
        "The database is damaged. Stop the application and start it again: it then says which copy is intact.";

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.Run(
            async () =>
            {
                await Task.Delay(TimeSpan.FromSeconds(options.LookOverAfterSeconds), stoppingToken)
                    .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
                if (stoppingToken.IsCancellationRequested)
                    return;
                var file = StoreFile.PathIn(options.DataFolder);
                try
                {
                    if (!File.Exists(file) || new FileInfo(file).Length <= options.LookOverBytes || StoreFile.IsWhole(file))
                        return;
                }
                catch (SqliteException error) when (DatabaseFault.Of(error) != DatabaseFault.Damaged)
                {
                    log.LogWarning(error, "The database could not be checked");
                    return;
                }
                catch (SqliteException error)
                {
                    log.LogError(error, "The database is damaged");
                }

                troubles.Tell(Damaged);
            },
            stoppingToken
        );
}
