using System.Collections.Immutable;

namespace Daxlin.Core.Links;

/// <summary>The hosts that documents may be fetched from; none of a service that was told none.</summary>
public sealed record LinkHosts(ImmutableArray<LinkHost> All)
{
    public static LinkHosts None { get; } = new([]);

    /// <returns>Why nothing is fetched from an address, as a sentence; null if it may be.</returns>
    public string? FaultOf(Uri address)
    {
        if (All.IsEmpty)
            return "No host is named that documents may be fetched from. Whoever runs the service names some with --link-host; or send the document itself.";
        if (All.FirstOrDefault(host => host.Fits(address)) is not { } named)
            return $"{address.Host}:{address.Port} is not among the hosts that documents may be fetched from: {string.Join(", ", All)}.";
        if (address.UserInfo.Length > 0)
            return "A link with a password in it is not followed.";
        return address.Scheme == Uri.UriSchemeHttps || (address.Scheme == Uri.UriSchemeHttp && named.IsAddress) ? null
            : $"A document is fetched from {address.Host} by https alone: on the way, anyone could put another in its place.";
    }
}
