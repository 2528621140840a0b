namespace Daxlin.Service.Web;

/// <summary>Tells addresses of the console's pages from those of the interface, which are never a page.</summary>
/// <remarks>Else a wrong method or a misspelt address of the interface would be answered by a page and "200 OK".</remarks>
internal sealed class PageOfConsole : IRouteConstraint
{
    public const string Name = "page-of-console";

    public bool Match(HttpContext? httpContext, IRouter? route, string routeKey, RouteValueDictionary values, RouteDirection routeDirection)
    {
        var path = values[routeKey] as string ?? "";
        return !path.StartsWith("api/", StringComparison.OrdinalIgnoreCase) && path is not ("api" or "health" or "metrics") && !path.StartsWith("health/", StringComparison.OrdinalIgnoreCase)
            && !path[(path.LastIndexOf('/') + 1)..].Contains('.', StringComparison.Ordinal);
    }
}
