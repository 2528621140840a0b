using Microsoft.AspNetCore.HttpOverrides;

namespace Daxlin.Service.Web;

/// <summary>What a proxy that stands before the service says of a request: whose it is, under which name and scheme it came. Nobody else's word counts.</summary>
internal static class BehindProxy
{
    public static ForwardedHeadersOptions Of(ServiceSettings settings)
    {
        var options = new ForwardedHeadersOptions { ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost, ForwardLimit = 1 };
        options.KnownIPNetworks.Clear();
        options.KnownProxies.Clear();
        foreach (var proxy in settings.Proxies)
            options.KnownProxies.Add(proxy);
        foreach (var host in settings.Hosts)
            options.AllowedHosts.Add(host);
        return options;
    }
}
