using System.Reflection;

namespace Daxlin.Service.Web;

/// <summary>Who makes a request and answers for what it changes. There is no sign-in yet: it is the user that the service runs as.</summary>
public sealed record Actor(string Name)
{
    public static ValueTask<Actor?> BindAsync(HttpContext context, ParameterInfo parameter) => ValueTask.FromResult<Actor?>(new Actor(Environment.UserName));
}
