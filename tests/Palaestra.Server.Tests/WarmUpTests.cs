using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Palaestra.Server.Serving;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>What is made ready after the start, in an empty clinic and in a full one.</summary>
public sealed class WarmUpTests
{
    [Theory]
    [InlineData("serve")]
    [InlineData("demo")]
    public async Task Everything_is_made_ready_without_a_word(string mode)
    {
        await using var server = new RunningServer(mode);
        var told = new Told();
        using var warm = ActivatorUtilities.CreateInstance<WarmUp>(server.Services, told);
        await warm.StartAsync(TestContext.Current.CancellationToken);
        await warm.ExecuteTask!;
        Assert.Empty(told.Words);
    }

    private sealed class Told : ILogger<WarmUp>
    {
        public List<string> Words { get; } = [];

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => true;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        ) => Words.Add($"{formatter(state, exception)} {exception}");
    }
}
