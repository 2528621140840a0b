using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>A receiver as it is found outside: a server of its kind, which a test can ask what it has.</summary>
internal interface ITestReceiver : IAsyncDisposable
{
    int Port { get; }

    /// <summary>What the document says of it, and the secrets that it names.</summary>
    /// <param name="port">Its own, or that of what stands before it.</param>
    (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port);

    /// <summary>How often it has a run.</summary>
    Task<int> TimesOf(JsonNode run);
}
