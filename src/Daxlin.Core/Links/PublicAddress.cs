using System.Net;

namespace Daxlin.Core.Links;

/// <summary>Tells addresses that anyone on the internet has from those of this machine, of its network, and of no one.</summary>
public static class PublicAddress
{
    /// <summary>What of IANA's registries of special-purpose addresses (RFC 6890) is reached by no stranger, and multicast.</summary>
    private static readonly IPNetwork[] Special =
    [
        .. new[]
        {
            "0.0.0.0/8", "10.0.0.0/8", "100.64.0.0/10", "127.0.0.0/8", "169.254.0.0/16", "172.16.0.0/12", "192.0.0.0/24", "192.0.2.0/24", "192.88.99.0/24", "192.168.0.0/16", "198.18.0.0/15",
            "198.51.100.0/24", "203.0.113.0/24", "224.0.0.0/3", "2001::/23", "2001:db8::/32", "2002::/16", "3fff::/20",
        }.Select(network => IPNetwork.Parse(network)),
    ];

    /// <summary>All that is given out of version 6 at all.</summary>
    private static readonly IPNetwork GivenOut = IPNetwork.Parse("2000::/3");

    public static bool Is(IPAddress address)
    {
        var plain = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;
        return !Array.Exists(Special, network => network.Contains(plain)) && (plain.AddressFamily == System.Net.Sockets.AddressFamily.InterNetwork || GivenOut.Contains(plain));
    }
}
