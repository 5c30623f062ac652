using RuddySpring.Store;

namespace RuddySpring.Server.Hosting;

/// <summary>Where the sample household can be looked at.</summary>
/// <param name="Url">Its own address on this machine.</param>
public sealed record SampleView(string Url);

/// <summary>
/// The sample household to look around in: a second server of its own, with a store in a temporary folder, so that nothing done
/// there touches this household. It is gone without a trace when it is left or this server stops.
/// </summary>
public sealed class SampleBench(ServerOptions options) : IHostedService, IDisposable
{
    private readonly SemaphoreSlim _one = new(1, 1);
    private Visit? _visit;

    /// <summary>Whether this is such a sample itself, or shows it anyway: a sample has no sample.</summary>
    public bool Offered => !options.Demo;

    /// <summary>Starts it where it does not run yet, and says where it is.</summary>
    /// <param name="home">Address of this server as the visitor knows it, to come back to.</param>
    /// <exception cref="NotThereException">This is the sample household already.</exception>
    public async Task<SampleView> OpenAsync(string home, CancellationToken cancel)
    {
        if (!Offered)
            throw new NotThereException("This is the sample household already.");
        await _one.WaitAsync(cancel);
        try
        {
            _visit ??= await Visit.BeginAsync(options, home);
            return new(_visit.Url);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Ends it and removes its store; nothing where it does not run.</summary>
    public async Task CloseAsync()
    {
        await _one.WaitAsync();
        try
        {
            if (_visit is { } visit)
                await visit.DisposeAsync();
            _visit = null;
        }
        finally
        {
            _one.Release();
        }
    }

    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StopAsync(CancellationToken cancellationToken) => CloseAsync();

    public void Dispose() => _one.Dispose();

    private sealed class Visit(string folder, WebApplication app, IDisposable held) : IAsyncDisposable
    {
        private const string Prefix = "ruddy-visit-";

        public string Url { get; } = app.Urls.First();

        public static async Task<Visit> BeginAsync(ServerOptions own, string home)
        {
            SweepUp();
            var folder = Directory.CreateTempSubdirectory(Prefix).FullName;
            IDisposable? held = null;
            try
            {
                var options = own with { Port = 0, DataFolder = folder, Demo = true, Home = home, Restore = false };
                held = await Task.Run(() => RuddyServer.PrepareData(options, DateTime.UtcNow));
                var app = RuddyServer.Build(options);
                await app.StartAsync();
                return new(folder, app, held);
            }
            catch
            {
                held?.Dispose();
                Directory.Delete(folder, true);
                throw;
            }
        }

        /// <summary>What a server left behind that was killed while somebody looked around: nobody holds it any more.</summary>
        private static void SweepUp()
        {
            foreach (var left in Directory.EnumerateDirectories(Path.GetTempPath(), $"{Prefix}*"))
            {
                try
                {
                    FolderLock.Take(left, TimeSpan.Zero, _ => { }).Dispose();
                    Directory.Delete(left, true);
                }
                catch (Exception error) when (error is StoreProblemException or IOException or UnauthorizedAccessException)
                {
                    // somebody is looking around in it, or it is another user's
                }
            }
        }

        public async ValueTask DisposeAsync()
        {
            await app.StopAsync();
            await app.DisposeAsync();
            held.Dispose();
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, true);
        }
    }
}
