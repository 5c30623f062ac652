using System.Net.Sockets;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.OpenApi;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Care;
using RuddySpring.Server.Exchange;
using RuddySpring.Server.Exchange.Households;
using RuddySpring.Server.Exchange.Logbooks;
using RuddySpring.Server.Explain;
using RuddySpring.Server.Household;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Ladders;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Machines;
using RuddySpring.Server.Network;
using RuddySpring.Server.Photos;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Practice;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Pull;
using RuddySpring.Server.Reasoning;
using RuddySpring.Server.Sessions;
using RuddySpring.Server.Shell;
using RuddySpring.Server.Storage;
using RuddySpring.Server.Tasting;
using RuddySpring.Server.Trends;
using RuddySpring.Server.Warm;
using RuddySpring.Store;
using RuddySpring.Store.Demo;

namespace RuddySpring.Server.Hosting;

/// <summary>Puts the application together. The only place that knows all capabilities.</summary>
public static class RuddyServer
{
    /// <summary>Largest request body that is read, bytes.</summary>
    public const long LargestUpload = 8 * 1024 * 1024;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(8);
    private static readonly TimeSpan LongestGoodbye = TimeSpan.FromSeconds(3);

    /// <summary>Starts the application and waits until it is stopped. Returns the process's exit code.</summary>
    public static async Task<int> RunAsync(string[] args)
    {
        try
        {
            if (IsTool)
            {
                // the document generator and the migration tool load this program without arguments of ours and never serve
                await Build(new ServerOptions(0, Path.GetTempPath(), false, Path.GetTempPath())).RunAsync();
                return 0;
            }

            var options = ServerOptions.Parse(args);
            // neither needs the other, and both are mostly code that is compiled as it is first used
            var building = Task.Run(() => WithEndpoints(Build(options)));
            using var held = PrepareData(options, DateTime.UtcNow);
            if (options.HomeNetwork)
                HomePassphrase.Set(options, Console.In);
            TryPort(options.Port);
            await using var app = await building;
            await app.StartAsync();
            Console.WriteLine($"Listening on {app.Urls.First()}");
            await app.WaitForShutdownAsync();
            return 0;
        }
        catch (ArgumentException error)
        {
            await Console.Error.WriteLineAsync(error.Message);
            return 2;
        }
        catch (StoreProblemException error)
        {
            await Console.Error.WriteLineAsync(error.Message);
            return 3;
        }
        catch (UnauthorizedAccessException)
        {
            await Console.Error.WriteLineAsync(
                "The data folder cannot be written. Choose another with --data DIR, or let this user write it."
            );
            return 3;
        }
        catch (Exception error)
            when (error
                    is SocketException
                        or IOException
                        {
                            InnerException: SocketException or Microsoft.AspNetCore.Connections.AddressInUseException
                        }
            )
        {
            await Console.Error.WriteLineAsync("The port is taken by another program. Choose another with --port N.");
            return 4;
        }
        catch (IOException error)
        {
            await Console.Error.WriteLineAsync($"The data folder cannot be used; its disk may be full: {error.Message}");
            return 3;
        }
    }

    /// <summary>
    /// Takes the data folder for this process, brings the database up to date and fills an empty one if asked. The folder is held
    /// until what is returned is disposed of.
    /// </summary>
    /// <exception cref="StoreProblemException">The folder or its database cannot be used; the sentence says why and what to
    /// do.</exception>
    /// <exception cref="UnauthorizedAccessException">The folder cannot be written.</exception>
    public static IDisposable PrepareData(ServerOptions options, DateTime nowUtc)
    {
        var held = FolderLock.Take(options.DataFolder, Patience, Console.WriteLine);
        try
        {
            if (options.Restore)
                Console.WriteLine($"Put in place: {StoreFile.Restore(options.DataFolder, nowUtc)}");
            StoreFile.Migrate(options.DataFolder, options.LookOverBytes);
            StoreFile.Begin(options.DataFolder, options.NewHousehold, context =>
            {
                if (options.Demo)
                    HutScenario.Fill(context, nowUtc);
                else
                    context.Households.Add(new Store.Entities.Household { Name = "My bench" });
            });
            return held;
        }
        catch
        {
            held.Dispose();
            throw;
        }
    }

    /// <summary>The application, not started yet.</summary>
    public static WebApplication Build(ServerOptions options)
    {
        var builder = WebApplication.CreateEmptyBuilder(
            new WebApplicationOptions
            {
                ApplicationName = typeof(RuddyServer).Assembly.GetName().Name,
                ContentRootPath = AppContext.BaseDirectory,
                EnvironmentName = Environments.Production,
            }
        );
        var home = new HomeEndpoint();
        builder.WebHost.UseKestrel(kestrel =>
        {
            kestrel.Listen(System.Net.IPAddress.Loopback, options.Port, OwnSeat.Mark);
            kestrel.Configure(home.Configuration, reloadOnChange: true);
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = LargestUpload;
        });
        builder.Logging.AddConsole().SetMinimumLevel(LogLevel.Warning);

        var services = builder.Services;
        services.AddRouting();
        services.AddSingleton(options);
        services.AddSingleton(TimeProvider.System);
        services.AddDbContextPool<RuddyContext>(o => StoreFile.Configure(o, options.DataFolder));
        services.Configure<JsonOptions>(json => ContractJson.Set(json.SerializerOptions));
        services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        services.Configure<HostOptions>(host =>
        {
            host.ShutdownTimeout = LongestGoodbye;
            host.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore;
        });
        services.AddProblemDetails();
        services.AddExceptionHandler<ProblemSentences>();
        services.AddOpenApi(openApi =>
        {
            openApi.AddDocumentTransformer(
                (document, _, _) =>
                {
                    document.Servers = [];
                    return Task.CompletedTask;
                }
            );
            // a filter's members are written in an address as every other parameter is
            openApi.AddOperationTransformer(
                (operation, _, _) =>
                {
                    foreach (var parameter in (operation.Parameters ?? []).OfType<OpenApiParameter>())
                        parameter.Name = JsonNamingPolicy.CamelCase.ConvertName(parameter.Name!);
                    return Task.CompletedTask;
                }
            );
        });
        services
            .AddSignalR()
            .AddJsonProtocol(json => json.PayloadSerializerOptions.Converters.Add(new JsonStringEnumConverter()));
        services.AddSingleton(_ => new SteadyClock(options.Speed));
        services.AddSingleton<ShotMemory>();
        services.AddSingleton<Troubles>();
        services.AddSingleton<Screens>();
        services.AddSingleton<InstrumentDesk>();
        services.AddSingleton(_ => new PullJournal(options.DataFolder));
        services.AddSingleton<PullDesk>();
        services.AddSingleton<PracticeDesk>();
        services.AddScoped<PullKeeping>();
        services.AddScoped<TraceImport>();
        services.AddScoped<LogbookImport>();
        services.AddSingleton<HouseholdImports>();
        services.AddScoped<SessionDesk>();
        services.AddSingleton(new ProbePace(TimeSpan.FromSeconds(5 / options.Speed)));
        services.AddSingleton<SessionGate>();
        services.AddSingleton<SampleBench>();
        services.AddHostedService(s => s.GetRequiredService<SampleBench>());
        services.AddSingleton(_ => new Backups(options.DataFolder, options.BackupFolder));
        services.AddSingleton<Upkeep>();
        services.AddHostedService(s => s.GetRequiredService<Upkeep>());
        services.AddSingleton(home);
        services.AddSingleton<Access>();
        services.AddHomeCookie();
        services.AddNetworkPace();
        services.AddSingleton<HomeListener>();
        services.AddHostedService(s => s.GetRequiredService<HomeListener>());
        services.AddHostedService<LookOver>();
        services.AddHostedService<JournalSweep>();
        services.AddHostedService<GroupProbe>();
        services.AddHostedService<JournalLoop>();
        services.AddHostedService<LiveBroadcast>();
        services.AddHostedService<PracticeBroadcast>();
        services.AddResponseCompression();

        var app = builder.Build();
        app.UseMiddleware<RequestGuard>();
        app.UseExceptionHandler();
        app.UseWebSockets();
        app.UseRateLimiter();
        app.UseMiddleware<NetworkGuard>();
        app.UseMiddleware<BodyGuard>();
        app.UseResponseCompression();
        app.UseRouting();
        app.UseMiddleware<QueryGuard>();
        FrontEnd.Use(app, options.WebRoot);

        var api = app.MapGroup("/api");
        api.MapEveryPage();
        api.MapHousehold();
        api.MapBench();
        api.MapMachines();
        api.MapPrepare();
        api.MapPrediction();
        api.MapExplain();
        api.MapPlans();
        api.MapShelf();
        api.MapWarm();
        api.MapSessions();
        api.MapPull();
        api.MapPractice();
        api.MapTasting();
        api.MapReasoning();
        api.MapTrends();
        api.MapLadders();
        api.MapLedger();
        api.MapSavedViews();
        api.MapShotChanges();
        api.MapPhotos();
        api.MapExchange();
        api.MapHouseholdExchange();
        api.MapAbout();
        api.MapCare();
        api.MapStorage();
        api.MapNetwork();
        app.MapInstruments();
        app.MapHub<LiveHub>("/live");
        app.MapOpenApi("/api/openapi.json");
        app.MapFallback("/api/{**rest}", context =>
            TypedResults.Problem("There is no such address.", statusCode: 404).ExecuteAsync(context)
        );
        FrontEnd.MapFallback(app, options.WebRoot);
        app.UseEndpoints(_ => { });
        return app;
    }

    /// <summary>Tries whether a port is free: the host would report a taken one with a stack trace.</summary>
    /// <exception cref="SocketException">It is taken.</exception>
    private static void TryPort(int port)
    {
        using var tried = new TcpListener(System.Net.IPAddress.Loopback, port);
        tried.Start();
    }

    /// <summary>Makes the endpoints of an application, which would be made as it starts.</summary>
    private static WebApplication WithEndpoints(WebApplication app)
    {
        _ = app.Services.GetRequiredService<EndpointDataSource>().Endpoints;
        return app;
    }

    private static bool IsTool => Assembly.GetEntryAssembly()?.GetName().Name is "GetDocument.Insider" or "ef";
}
