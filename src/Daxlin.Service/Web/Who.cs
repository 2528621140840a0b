namespace Daxlin.Service.Web;

/// <summary>Who makes a request. There is no sign-in yet: it is the user that the service runs as.</summary>
internal static class Who
{
    public static string Decides => Environment.UserName;
}
