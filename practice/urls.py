from django.urls import path

from practice import pages
from practice.api import api

app_name = "practice"
urlpatterns = [
    path("api/", api.urls),
    path("", pages.feed, name="feed"),
    path("enter/<str:ticket>", pages.enter, name="enter"),
    path("door", pages.door, name="door"),
    path("leave", pages.leave, name="leave"),
    path("line", pages.line, name="line"),
    path("counts", pages.counts, name="counts"),
    path("posts/<uuid:name>/film", pages.film, name="film"),
    path("posts/<uuid:name>/cover", pages.cover, name="cover"),
]
