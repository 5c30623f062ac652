namespace RuddySpring.Server.Hosting;

/// <summary>
/// Something that goes on beside the requests, turn by turn. A turn that fails is logged with its cause and told on the screens
/// once; the loop goes on, and neither the application nor another loop notices.
/// </summary>
/// <param name="what">What it does, as the beginning of a sentence: "Reading the group probe".</param>
public abstract class GuardedLoop(string what, Troubles troubles, ILogger log) : BackgroundService
{
    private static readonly TimeSpan AfterAFault = TimeSpan.FromSeconds(1);
    private readonly string _sentence = $"{what} failed and goes on; the server's log says why.";
    private string? _lastFault;

    /// <summary>One turn, with its own waiting in it.</summary>
    protected abstract Task TurnAsync(CancellationToken stop);

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await TurnAsync(stoppingToken);
                if (_lastFault is null)
                    continue;
                _lastFault = null;
                troubles.Over(_sentence);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error)
            {
                var fault = $"{error.GetType()} {error.Message}";
                if (fault != _lastFault)
                    log.LogError(error, "{What} failed", what);
                _lastFault = fault;
                troubles.Tell(_sentence);
                await Task.Delay(AfterAFault, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }
}
