global using System.Net;
global using NodaTime;
global using SpringLoft.Core;
global using SpringLoft.Core.Workspaces;
global using SpringLoft.Tests.Shared;
