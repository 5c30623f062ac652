using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>How far the import of a household is.</summary>
public enum ImportPhase
{
    /// <summary>The file is read through; nothing is stored.</summary>
    Checking,

    /// <summary>It is sound, and waits for being stored.</summary>
    Checked,

    /// <summary>It is being stored.</summary>
    Storing,

    /// <summary>It is stored.</summary>
    Stored,

    /// <summary>It was given up; nothing was changed.</summary>
    Failed,
}

/// <summary>The import of a household, as far as it is.</summary>
/// <param name="Token">Its name in addresses.</param>
/// <param name="DoneShare">How much of the file is done in this phase, 0 to 1.</param>
/// <param name="Counts">What is new and what is here already, list by list; whole once it is checked.</param>
/// <param name="IsEmptyHere">Whether the bench here has no shot yet: then name, place and units of the file are taken too, unless
/// told otherwise.</param>
/// <param name="Problem">Why it was given up; null otherwise.</param>
public sealed record ImportState(
    string Token,
    ImportPhase Phase,
    double DoneShare,
    IReadOnlyList<TakenIn> Counts,
    bool IsEmptyHere,
    string? Problem
);

/// <summary>
/// Imports of households: the file is laid down, read through, and stored when that is asked for, all in one transaction. One at
/// a time; progress is told, and it can be given up until the last moment.
/// </summary>
public sealed class HouseholdImports(
    IServiceScopeFactory scopes,
    ServerOptions options,
    TimeProvider time,
    ILogger<HouseholdImports> log
)
{
    /// <summary>Largest file that is read, bytes: a shot with its trace takes about 11 kB, so that it is some 350 000
    /// shots.</summary>
    public const long LargestFile = 4L * 1024 * 1024 * 1024;

    private const string Ending = ".incoming";
    private readonly Lock _lock = new();
    private Import? _current;

    private sealed class Import(string token, string path) : IDisposable
    {
        public string Token { get; } = token;
        public string Path { get; } = path;
        public CancellationTokenSource Stop { get; } = new();
        public ImportState State { get; set; } = new(token, ImportPhase.Checking, 0, [], false, null);
        public Task Work { get; set; } = Task.CompletedTask;

        public void Dispose()
        {
            Stop.Dispose();
            File.Delete(Path);
        }
    }

    /// <summary>Lays a file down and begins to read it through.</summary>
    /// <exception cref="NotNowException">Another import is under way.</exception>
    public async Task<ImportState> BeginAsync(Stream file, CancellationToken cancel)
    {
        Directory.CreateDirectory(options.DataFolder);
        Import import;
        lock (_lock)
        {
            if (_current is { State.Phase: ImportPhase.Checking or ImportPhase.Storing })
                throw new NotNowException("Another import is under way. Wait for its end, or cancel it.");
            _current?.Dispose();
            Sweep();
            var token = Guid.NewGuid().ToString("N");
            _current = import = new(token, Path.Combine(options.DataFolder, token + Ending));
        }

        try
        {
            await using (var to = File.Create(import.Path))
                await file.CopyToAsync(to, cancel);
        }
        catch (Exception error)
        {
            lock (_lock)
            {
                import.Dispose();
                _current = null;
            }

            if (error is IOException and not Microsoft.AspNetCore.Http.BadHttpRequestException && !cancel.IsCancellationRequested)
            {
                log.LogError(error, "The file to import could not be written");
                throw new UnreadableBodyException(
                    StatusCodes.Status507InsufficientStorage,
                    "The file could not be written to the data folder: there may be no room left on the disk. "
                        + "Nothing was changed."
                );
            }

            throw;
        }

        import.Work = Task.Run(() => RunAsync(import, isStored: false, withSettings: false), CancellationToken.None);
        return import.State;
    }

    /// <summary>Whether one is being stored.</summary>
    public bool IsStoring
    {
        get
        {
            lock (_lock)
                return _current is { State.Phase: ImportPhase.Storing };
        }
    }

    /// <summary>How far it is.</summary>
    /// <exception cref="NotThereException">There is no such import.</exception>
    public ImportState Of(string token) => Find(token).State;

    /// <summary>Begins to store what was read through.</summary>
    /// <exception cref="NotNowException">It is not ready for that.</exception>
    public ImportState Store(string token, bool withSettings)
    {
        var import = Find(token);
        lock (_lock)
        {
            if (import.State.Phase != ImportPhase.Checked)
                throw new NotNowException("The file is not ready to be stored.");
            import.State = import.State with { Phase = ImportPhase.Storing, DoneShare = 0 };
        }

        import.Work = Task.Run(() => RunAsync(import, isStored: true, withSettings), CancellationToken.None);
        return import.State;
    }

    /// <summary>Gives an import up; what was stored whole stays.</summary>
    public async Task CancelAsync(string token)
    {
        var import = Find(token);
        await import.Stop.CancelAsync();
        await import.Work;
        lock (_lock)
        {
            if (_current == import)
                _current = null;
            import.Dispose();
        }
    }

    /// <summary>What an earlier run of the program left behind.</summary>
    private void Sweep()
    {
        foreach (var left in Directory.EnumerateFiles(options.DataFolder, "*" + Ending))
            File.Delete(left);
    }

    private Import Find(string token)
    {
        lock (_lock)
            return _current is { } import && import.Token == token
                ? import
                : throw new NotThereException("That import is over. Choose the file again.");
    }

    private async Task RunAsync(Import import, bool isStored, bool withSettings)
    {
        try
        {
            using var scope = scopes.CreateScope();
            var db = scope.ServiceProvider.GetRequiredService<RuddyContext>();
            var isEmpty = !await db.Shots.AnyAsync(import.Stop.Token);
            await using var whole = isStored ? await db.Database.BeginTransactionAsync(import.Stop.Token) : null;
            var intake = new HouseholdIntake(db, time, isStored, withSettings);
            await using var file = File.OpenRead(import.Path);
            await foreach (var piece in new SectionReader(file).ReadAsync(import.Stop.Token))
            {
                await intake.TakeAsync(piece, import.Stop.Token);
                import.State = import.State with
                {
                    DoneShare = Math.Min(1, piece.Offset / (double)Math.Max(1, file.Length)),
                    Counts = intake.Counts,
                    IsEmptyHere = isEmpty,
                };
            }

            await intake.EndAsync(import.Stop.Token);
            if (whole is not null)
                await whole.CommitAsync(import.Stop.Token);
            import.State = import.State with
            {
                Phase = isStored ? ImportPhase.Stored : ImportPhase.Checked,
                DoneShare = 1,
                Counts = intake.Counts,
                IsEmptyHere = isEmpty,
            };
        }
        catch (Exception error)
        {
            if (error is not (OperationCanceledException or DoesNotFitException or FieldRangeException))
                log.LogError(error, "The import of a household failed");
            import.State = import.State with { Phase = ImportPhase.Failed, Problem = Sentence(error) };
        }
    }

    private static string Sentence(Exception error) =>
        error switch
        {
            DoesNotFitException e => Quantity.Plain(e.Sentence),
            FieldRangeException e => Quantity.Plain(e.Sentence),
            OperationCanceledException => "The import was cancelled. Nothing was changed.",
            DbUpdateException { InnerException: Microsoft.Data.Sqlite.SqliteException e } => DatabaseFault.Sentence(e),
            Microsoft.Data.Sqlite.SqliteException e => DatabaseFault.Sentence(e),
            IOException => "The file could not be read again. Nothing was changed.",
            _ => "Something went wrong inside the application; the server's log says what. Nothing was changed.",
        };
}
