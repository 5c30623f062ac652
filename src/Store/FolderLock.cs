namespace RuddySpring.Store;

/// <summary>Why the data folder cannot be used, in words for the person who starts the application.</summary>
public sealed class StoreProblemException(string sentence, Exception? cause = null) : Exception(sentence, cause);

/// <summary>
/// Holds a data folder for one process. The operating system lets go of it when the process ends, however it ends.
/// </summary>
public sealed class FolderLock : IDisposable
{
    private const string FileName = "in-use";
    private static readonly TimeSpan LookEvery = TimeSpan.FromMilliseconds(100);
    private readonly FileStream _file;

    private FolderLock(FileStream file) => _file = file;

    /// <summary>Takes a folder, which is made if need be; waits for whoever has it to let go.</summary>
    /// <param name="folder">The data folder.</param>
    /// <param name="patience">How long to wait.</param>
    /// <param name="waiting">Told what is waited for, once.</param>
    /// <exception cref="StoreProblemException">Another process keeps it.</exception>
    /// <exception cref="UnauthorizedAccessException">The folder cannot be written.</exception>
    public static FolderLock Take(string folder, TimeSpan patience, Action<string> waiting)
    {
        Directory.CreateDirectory(folder);
        var path = Path.Combine(folder, FileName);
        for (var waited = TimeSpan.Zero; ; waited += LookEvery)
        {
            try
            {
                return new(new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None));
            }
            catch (IOException) when (File.Exists(path))
            {
                if (waited == TimeSpan.Zero)
                    waiting($"Waiting for another Ruddy Spring to let go of {folder}.");
                if (waited >= patience)
                    throw new StoreProblemException(
                        $"Another Ruddy Spring is using {folder}. Stop it first, or choose another folder with --data DIR."
                    );
                Thread.Sleep(LookEvery);
            }
        }
    }

    public void Dispose() => _file.Dispose();
}
