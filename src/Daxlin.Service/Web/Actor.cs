using System.Reflection;

namespace Daxlin.Service.Web;

/// <summary>Who makes a request and answers for what it changes.</summary>
/// <remarks>
/// There is no sign-in yet: a person says its name in the header <c>Daxlin-Person</c>, percent-encoded, and who says none is the
/// user that the service runs as. Only programs of this machine reach the service, and only their word stands for the name.
/// </remarks>
public sealed record Actor(string Name)
{
    public const string Header = "Daxlin-Person";

    private const int LongestName = 100;

    public static ValueTask<Actor?> BindAsync(HttpContext context, ParameterInfo parameter)
    {
        var said = Uri.UnescapeDataString(context.Request.Headers[Header].ToString());
        var name = string.Concat(said.Where(c => !char.IsControl(c))).Trim();
        return ValueTask.FromResult<Actor?>(new Actor(name.Length is > 0 and <= LongestName ? name : Environment.UserName));
    }
}
