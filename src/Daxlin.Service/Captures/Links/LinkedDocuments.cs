using System.Collections.Immutable;
using System.Net;
using System.Net.Sockets;
using Daxlin.Core.Capture;
using Daxlin.Core.Links;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Captures.Links;

/// <summary>Fetches documents that other programs name by a link, from hosts that whoever runs the service has named, and from nowhere else.</summary>
/// <remarks>
/// A program that may send documents must not reach by Daxlin what it cannot reach itself: this machine, its network, or what a name is made to point to meanwhile. So the address
/// is looked at when the line is made, and again at each place that an answer points on to.
/// </remarks>
internal sealed class LinkedDocuments(ServiceSettings settings) : IDisposable
{
    private const int MostSteps = 4;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private readonly HttpClient http = new(new SocketsHttpHandler { AllowAutoRedirect = false, UseProxy = false, UseCookies = false, ConnectTimeout = TimeSpan.FromSeconds(15), ConnectCallback = Connect })
    {
        Timeout = Timeout.InfiniteTimeSpan,
    };

    /// <param name="into">Where its bytes are put.</param>
    /// <returns>What it is called there.</returns>
    /// <exception cref="LinkFaultException">It was not fetched.</exception>
    /// <exception cref="TooLargeException">It is too large to be kept.</exception>
    public async Task<string> Fetch(string link, Stream into, CancellationToken cancel)
    {
        if (!Uri.TryCreate(link, UriKind.Absolute, out var address))
            throw LinkFaultException.Faulty($"“{link}” is no address; one is written as https://files.vendor.example/invoice.pdf.");
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        try
        {
            for (var step = 0; step < MostSteps; step++)
            {
                if (settings.LinkHosts.FaultOf(address) is { } fault)
                    throw LinkFaultException.Refused(fault);
                using var answer = await http.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, patience.Token);
                if ((int)answer.StatusCode is >= 300 and < 400 && answer.Headers.Location is { } next && Uri.TryCreate(address, next, out var further))
                {
                    address = further;
                    continue;
                }
                if (!answer.IsSuccessStatusCode)
                    throw LinkFaultException.NotThere($"{address.Host} answered {(int)answer.StatusCode} to the link: nothing was fetched.");
                await using var content = await answer.Content.ReadAsStreamAsync(patience.Token);
                await Copy(content, into, patience.Token);
                return FileName.Of(answer.Content.Headers.ContentDisposition?.FileNameStar ?? answer.Content.Headers.ContentDisposition?.FileName?.Trim('"') ?? Uri.UnescapeDataString(address.Segments[^1]));
            }
            throw LinkFaultException.NotThere($"The link points on more than {MostSteps} times.");
        }
        catch (HttpRequestException error)
        {
            throw error.InnerException as LinkFaultException ?? LinkFaultException.NotReached($"{address.Host} could not be reached: {error.Message.TrimEnd('.')}.", error);
        }
        catch (Exception error) when (error is OperationCanceledException or IOException && !cancel.IsCancellationRequested && !StorageFaults.IsFull(error))
        {
            throw LinkFaultException.NotReached(error is IOException ? $"The line to {address.Host} was cut before all of the document was here." : $"{address.Host} did not send the document within {Patience.TotalSeconds:F0} seconds.", error);
        }
    }

    private static async Task Copy(Stream content, Stream into, CancellationToken cancel)
    {
        var buffer = new byte[1 << 16];
        var size = 0L;
        for (int read; (read = await content.ReadAsync(buffer, cancel)) > 0;)
        {
            size += read;
            if (size > DocumentStore.LargestDocument)
                throw new TooLargeException();
            await into.WriteAsync(buffer.AsMemory(0, read), cancel);
        }
        if (size == 0)
            throw LinkFaultException.NotThere("Nothing is at the end of the link: the answer is empty.");
    }

    /// <summary>Makes the line to an address that was looked at: asked for twice, a name may have two answers.</summary>
    private static async ValueTask<Stream> Connect(SocketsHttpConnectionContext context, CancellationToken cancel)
    {
        var (host, port) = (context.DnsEndPoint.Host, context.DnsEndPoint.Port);
        var isNamed = IPAddress.TryParse(host, out var own);
        ImmutableArray<IPAddress> addresses = isNamed ? [own!] : [.. await Dns.GetHostAddressesAsync(host, cancel)];
        // An address that was named itself is meant.
        if (!isNamed && addresses.FirstOrDefault(address => !PublicAddress.Is(address)) is { } hidden)
            throw LinkFaultException.Refused($"{host} is {hidden}, an address of this machine or its network: nothing is fetched from there.");
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync([.. addresses], port, cancel);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    public void Dispose() => http.Dispose();
}
